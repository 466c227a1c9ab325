"""Files that are handed on piece by piece: nobody holds a large one as a whole."""

import os
from collections.abc import Sequence
from typing import IO, Any, overload

from omnifer.store.database import QUERIES, Pool, acting, one_of

PIECE_BYTES = 4 * 2**20


class Lazy(Sequence[bytes]):
    """Contents that are fetched one at a time."""

    def __len__(self) -> int:
        raise NotImplementedError

    def _get(self, number: int) -> bytes:
        raise NotImplementedError

    @overload
    def __getitem__(self, index: int) -> bytes: ...

    @overload
    def __getitem__(self, index: slice) -> list[bytes]: ...

    def __getitem__(self, index: int | slice) -> bytes | list[bytes]:
        """One of them, or several."""
        if isinstance(index, slice):
            return [self._get(number) for number in range(*index.indices(len(self)))]
        if not 0 <= index < len(self):
            raise IndexError(index)
        return self._get(index)


class Pieces(Lazy):
    """An uploaded file cut into pieces; it is read when its errand is asked for, and by then its request may be over."""

    def __init__(self, file: IO[bytes]) -> None:
        self._file = os.fdopen(os.dup(file.fileno()), "rb")
        self._size = self._file.seek(0, 2)

    def __len__(self) -> int:
        return -(-self._size // PIECE_BYTES)

    def _get(self, number: int) -> bytes:
        self._file.seek(number * PIECE_BYTES)
        return self._file.read(PIECE_BYTES)


class Kept(Lazy):
    """The files of an errand, as the database keeps them."""

    def __init__(self, pool: Pool, owner_id: int, errand_id: int) -> None:
        self._pool = pool
        self._of: dict[str, Any] = {"owner_id": owner_id, "errand_id": errand_id}
        with acting(pool, owner_id) as connection:
            self._count = int(one_of(QUERIES.count_errand_files(connection, **self._of)))

    def __len__(self) -> int:
        return self._count

    def _get(self, number: int) -> bytes:
        with acting(self._pool, self._of["owner_id"]) as connection:
            return bytes(one_of(QUERIES.errand_file(connection, **self._of, number=number)))
