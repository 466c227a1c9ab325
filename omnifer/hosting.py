"""How Omnifer is hosted, where it is: its public address, what stands in front of it, where mail goes out."""

import os
from collections.abc import Mapping
from dataclasses import dataclass
from urllib.parse import urlsplit

from omnifer.outside.mail import Mail


class HostingProblem(Exception):
    """A setting of hosting cannot be used; the message says which and what to do."""


@dataclass(frozen=True)
class Hosting:
    """Riders sign in here, from other machines.

    Parameters
    ----------
    site : str
        The public address: https://tours.example, without a path.
    proxies : int
        How many proxies stand in front; of the addresses they tell so many are believed.
    mail : Mail
        Where mail goes out.
    """

    site: str
    proxies: int
    mail: Mail

    @property
    def host(self) -> str:
        """The name of the site, with its port where it has one."""
        return urlsplit(self.site).netloc

    @property
    def secure(self) -> bool:
        """Whether it is reached by TLS: else only for trying out, on this machine."""
        return self.site.startswith("https://")


def hosting_of(settings: Mapping[str, str] = os.environ) -> Hosting | None:
    """As OMNIFER_HOSTED, OMNIFER_PROXIES, OMNIFER_SMTP and OMNIFER_MAIL_FROM say; None where it serves this machine alone.

    Raises HostingProblem in words.
    """
    site = settings.get("OMNIFER_HOSTED", "").rstrip("/")
    if not site:
        return None
    at = urlsplit(site)
    plain = at.scheme == "http" and at.hostname in ("localhost", "127.0.0.1")
    if not (at.scheme == "https" or plain) or not at.hostname or at.path or at.query:
        raise HostingProblem(
            f"OMNIFER_HOSTED is {site!r}; it must be the public address, https://name without a path (http:// only on localhost)."
        )
    proxies = settings.get("OMNIFER_PROXIES", "1")
    if not proxies.isdecimal() or int(proxies) > 5:
        raise HostingProblem(f"OMNIFER_PROXIES is {proxies!r}; it must be how many proxies stand in front, 0 to 5.")
    sender = settings.get("OMNIFER_MAIL_FROM") or f"omnifer@{at.hostname}"
    return Hosting(site, int(proxies), Mail(settings.get("OMNIFER_SMTP", ""), sender))
