"""Photos that belong to entries of the log."""

from sqlalchemy.orm import Session, sessionmaker

from ruvak.core.errors import RuvakError
from ruvak.service.kept import KeptRigs
from ruvak.service.problems import NotFound
from ruvak.service.states import Person
from ruvak.store import photos

MOST_OF_A_RIG = 500


class TooManyPhotos(RuvakError):
    """A rig has as many as are kept."""

    code = "too_many_photos"


class Photos:
    """The use cases over one database."""

    def __init__(self, sessions: sessionmaker[Session], kept: KeptRigs) -> None:
        self._sessions, self._kept = sessions, kept

    def add(self, rig_id: str, photo_id: str, jpeg: bytes, person: Person) -> None:
        """Sent twice, it is there once. Raises NotFound, TooManyPhotos."""
        with self._sessions.begin() as session:
            self._kept.current(session, rig_id)
            if photos.count(session, rig_id) >= MOST_OF_A_RIG:
                raise TooManyPhotos(f"This rig has {MOST_OF_A_RIG} photos, as many as are kept.")
            photos.add(session, photo_id, rig_id, person.id, jpeg)

    def read(self, rig_id: str, photo_id: str) -> bytes:
        """A photo as JPEG. Raises NotFound."""
        with self._sessions() as session:
            jpeg = photos.find(session, photo_id, rig_id)
        if jpeg is None:
            raise NotFound("This photo has not come in yet; it may still be on the phone that took it.")
        return jpeg
