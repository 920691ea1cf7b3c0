"""What sees to itself: a backup soon after the start and every day, and after it old revisions let go."""

import logging
from threading import Event, Thread
from time import time

from . import backup, copies, keys, photographs, readings, recordings, thinning
from .database import Database
from .errors import NotFound, StoreError

log = logging.getLogger("lumso")

FIRST_AFTER_S, LOOK_EVERY_S = 20.0, 3600.0


class Keeper:
    """Looks now and then whether a backup is due, and makes it beside all else."""

    def __init__(self, db: Database) -> None:
        self.db, self.data = db, db.path
        self.hindered = False
        """Whether the last look came to no copy where one was due."""
        self._over = Event()
        self._thread = Thread(target=self._keep, name="keeper", daemon=True)

    def start(self) -> None:
        """Begin to look."""
        self._thread.start()

    def stop(self) -> None:
        """Look no more. A backup that is being made is completed first."""
        self._over.set()
        self._thread.join()

    def look(self) -> None:
        """Make a backup if one is due, and let go of old keys and revisions then. What hinders it is logged."""
        try:
            if backup.due(self.data):
                backup.make(self.data)
                keys.forget_old(self.db)
                thinning.thin(self.db)
                readings.forget_old(self.db, time() / 60)
                photographs.sweep(self.db)
                recordings.sweep(self.db)
                copies.sweep(self.data)
                backup.sweep_half_done(self.data)
            self.hindered = False
        except NotFound:
            pass  # nothing to keep yet
        except (StoreError, OSError) as error:
            self.hindered = True
            log.warning("no backup was made: %s", error)
        except Exception as error:  # whatever it is, it must not end what sees to itself
            self.hindered = True
            log.error("no backup was made", exc_info=error)

    def _keep(self) -> None:
        wait = FIRST_AFTER_S
        while not self._over.wait(wait):
            self.look()
            wait = LOOK_EVERY_S
