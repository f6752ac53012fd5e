"""The processes that answer requests: the application is loaded once, then forked.

Nothing here may connect to the database before the fork: connections must not be shared.
"""

from __future__ import annotations

import os
import socket
import threading
import time

from anchorline.store.database import Database, StoreError

from .app import ROUTERS, create_app, metrics_of, services_of
from .bodies import Bodies
from .context import Services
from .last_known import Known
from .logs import logger, set_up_logs
from .running.children import waited_for_its_turn
from .running.listening import LISTENER
from .serving.limits import Limits
from .serving.processes import Processes
from .settings import Settings, SettingsError
from .settle_memory import settle_memory
from .space import room_left

_LEARN_SECONDS = 5.0
_log = logger("serving")


def answer(settings: Settings, *, waits: bool = False) -> int:
    """Answers on the socket that was handed down until told to stop; the exit status.

    Args:
        waits: it stands ready, and begins when the one that answers now has died.

    Raises:
        SettingsError: it was started by hand.
    """
    set_up_logs(settings.log_level)
    if settings.database_url is None or LISTENER not in os.environ:
        raise SettingsError("This is a part of the service: start it by `anchorline serve`.")
    listener = socket.socket(fileno=int(os.environ[LISTENER]))
    room = room_left(settings.var, settings.reserved_space)
    database = Database(settings.database_url, room=room)
    app = create_app(settings, database, processes=settings.workers)
    services, metrics, bodies = services_of(app), metrics_of(app), Bodies(ROUTERS, settings)

    def begin(process: int) -> None:
        """Opens the active editions, so that nobody's first keystroke waits for it."""
        metrics.be_process(process)
        database.watch(_say_of_database, patience=settings.database_patience)
        known = services.last_known.recall()
        services.gate.keys.recall(known.keys)
        services.gazetteer.recall(known.editions)
        _learn(services)
        services.activity.begin()
        settle_memory()
        threading.Thread(target=_keep_learning, args=(services, process), daemon=True).start()

    limits = Limits(
        body=bodies.largest,
        admit=bodies.admission(services),
        room=bodies.room,
        threads=settings.threads,
    )
    processes = Processes(app, listener, limits, settings.workers, begin=begin, say=_log.error)
    if waits and not waited_for_its_turn():
        return 0
    return processes.run()


def _keep_learning(services: Services, process: int) -> None:
    """Gets to know what is new, also while nobody asks for it, and keeps it for who comes after."""
    while True:
        time.sleep(_LEARN_SECONDS)
        if _learn(services):
            known = Known(services.gazetteer.active, services.gate.keys.seen_lately())
            services.last_known.keep(process, known)
        else:  # other processes have seen other keys
            services.gate.keys.recall(services.last_known.recall().keys)


def _learn(services: Services) -> bool:
    """What finding and filling go on with while the database is away; False while it is."""
    try:
        services.gazetteer.current()
        services.published_forms.learn()
        services.published_targets.learn()
        services.layouts_in_force.current()
        services.activity.learn()
        services.address_uses.carry_over()
    except StoreError:
        return False  # nothing is new, then
    return True


def _say_of_database(answers: bool) -> None:
    if answers:
        _log.info("the database answers again")
    else:
        _log.error("the database does not answer; finding and filling go on")
