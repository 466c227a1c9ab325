"""Frames a second of the ribbon in the real browser, scrubbing and zooming over a track of 300,000 points.

    python -m bench.ribbon [--points 300000]

Needs the application built (bin/test does it). Starts a database and a server of its own, counts animation frames while
the playhead is dragged and while days are zoomed, and beside them the frames of a page that does nothing: the bound.
"""

import argparse
import logging
import shutil
import tempfile
import threading
from pathlib import Path

from playwright.sync_api import Page, sync_playwright
from werkzeug.serving import make_server

from bench.assessment import DAYS, KM_A_DAY, long_tour
from bench.browser import launch
from bench.roads import long_track
from omnifer.api.app import create_app
from omnifer.store.cluster import Cluster
from omnifer.store.database import LOCAL_RIDER, migrate, owner_named
from omnifer.store.tours import Tours

COUNT = """() => new Promise((done) => {
  const start = performance.now()
  let n = 0
  const tick = () => {
    n += 1
    const passed = performance.now() - start
    if (passed < 3000) requestAnimationFrame(tick)
    else done((n / passed) * 1000)
  }
  requestAnimationFrame(tick)
})"""
ACT = """() => {
  window.acting = true
  const act = () => {
    if (!window.acting) return
    ACTION
    requestAnimationFrame(act)
  }
  requestAnimationFrame(act)
}"""
PRESS = "window.slider.dispatchEvent(new KeyboardEvent('keydown', { key: KEY, bubbles: true }))"
ZOOM = "window.n += 1; if (window.n % 6 === 0) " + PRESS.replace("KEY", "window.n % 48 < 24 ? '+' : '-'")


def frames(page: Page, act: str) -> float:
    """Frames a second over three seconds while a script acts on every frame."""
    page.evaluate(ACT.replace("ACTION", act))
    found: float = page.evaluate(COUNT)
    page.evaluate("() => { window.acting = false }")
    return found


def main() -> None:
    arguments = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    arguments.add_argument("--points", type=int, default=300_000)
    points = arguments.parse_args().points
    logging.getLogger("werkzeug").setLevel(logging.ERROR)
    folder = Path(tempfile.mkdtemp(dir="/dev/shm" if Path("/dev/shm").is_dir() else None))
    folder.chmod(0o755)
    cluster = Cluster(folder, fast_and_forgetful=True)
    try:
        address = cluster.start()
        migrate(address)
        app = create_app(address, "bench")
        pool = app.extensions["omnifer"].pool
        tour = Tours(pool, owner_named(pool, LOCAL_RIDER)).create(long_tour(long_track(points, DAYS * KM_A_DAY))).id
        server = make_server("127.0.0.1", 0, app, threaded=True)
        threading.Thread(target=server.serve_forever, daemon=True).start()
        with sync_playwright() as playwright:
            browser = launch(playwright)
            page = browser.new_page(viewport={"width": 1280, "height": 800})
            page.goto("about:blank")
            idle = frames(page, "0")
            page.goto(f"http://127.0.0.1:{server.port}/tours/{tour}/road")
            page.get_by_role("slider").wait_for(timeout=60_000)
            page.evaluate("() => { window.slider = document.querySelector('[role=slider]'); window.n = 0 }")
            scrubbing = frames(page, PRESS.replace("KEY", "'ArrowRight'"))
            zooming = frames(page, ZOOM)
            browser.close()
        server.shutdown()
        pool.close()
    finally:
        cluster.stop()
        shutil.rmtree(folder, ignore_errors=True)
    print(f"{points} points, {DAYS} days: an empty page {idle:.0f} frames/s")
    for name, found in (("scrubbing", scrubbing), ("zooming", zooming)):
        print(f"{name:>10}: {found:5.0f} frames/s ({found / idle:4.0%} of the empty page)")


if __name__ == "__main__":
    main()
