"""The application factory."""

import atexit

from flask_openapi3 import Info, OpenAPI
from werkzeug.middleware.proxy_fix import ProxyFix

from ruvak import __version__
from ruvak.formats.house import house_from_zip
from ruvak.service.analyses import Analyses
from ruvak.service.computer import Computer
from ruvak.service.cupboard import Cupboard
from ruvak.service.edits import Edits
from ruvak.service.find import Finder
from ruvak.service.house import House
from ruvak.service.house_import import HouseImport
from ruvak.service.kept import KeptRigs
from ruvak.service.lead_tests import LeadTests
from ruvak.service.links import Links
from ruvak.service.log_book import LogBook
from ruvak.service.log_lines import LogLines
from ruvak.service.long_work import LongWork, QueuedCompute
from ruvak.service.occasions import Occasions
from ruvak.service.own_data import OwnDataReader
from ruvak.service.people import People
from ruvak.service.photos import Photos
from ruvak.service.pool import Compute, ComputePool, InPlace
from ruvak.service.pulling import Pulling
from ruvak.service.queue_worker import QueueWorkers
from ruvak.service.rigs import Rigs
from ruvak.service.sign_ins import SignIns
from ruvak.service.tester import Tester
from ruvak.service.venues import Venues
from ruvak.store.database import engine_for, sessions_for
from ruvak.web import errors, limits, logs, metrics, pages, security, stalled, who
from ruvak.web.answers import EXTENSION, UseCases
from ruvak.web.api import blueprints, health
from ruvak.web.json import BoundedJson
from ruvak.web.schemas import Problem
from ruvak.web.settings import MAX_BODY_BYTES, Settings, from_environment


def warm_up() -> None:
    """Imports and describes everything once, so that a worker forked from this process serves within a tenth of a
    second instead of seconds: it may take the place of a killed one."""
    create_app(Settings("postgresql+psycopg://", "", compute_processes=0))


def create_app(settings: Settings | None = None) -> OpenAPI:
    """An app on one database. What workers keep is only a saving, so any number of them can run."""
    settings = settings or from_environment()
    app = OpenAPI(
        __name__,
        info=Info(title="Ruvak", version=__version__, description="Plans sound runs and computes what they will do."),
        security_schemes={
            "csrf": {"type": "apiKey", "in": "header", "name": "X-CSRF-Token"},
            "sign_in": {"type": "apiKey", "in": "cookie", "name": "ruvak_sign_in"},
        },
        validation_error_model=Problem,
        validation_error_callback=errors.invalid,
        doc_ui=False,
        static_folder=None,
    )
    app.json = BoundedJson(app)
    app.config.update(
        SECRET_KEY=settings.secret_key,
        TRUSTED_HOSTS=list(settings.hosts),
        MAX_CONTENT_LENGTH=MAX_BODY_BYTES,
        SESSION_COOKIE_NAME="ruvak",
        SESSION_COOKIE_HTTPONLY=True,
        SESSION_COOKIE_SAMESITE="Lax",
        SESSION_COOKIE_SECURE=settings.secure_cookies,
        WTF_CSRF_HEADERS=["X-CSRF-Token"],
        WTF_CSRF_TIME_LIMIT=None,
    )
    app.wsgi_app = ProxyFix(app.wsgi_app, settings.proxies, settings.proxies) if settings.proxies else app.wsgi_app  # type: ignore[method-assign]
    limits.init_app(app)
    logs.init_app(app)
    metrics.init_app(app)
    errors.init_app(app)
    security.init_app(app)
    stalled.init_app(app)
    for api in blueprints():
        app.register_api(api)
    pages.init_app(app)
    # Last, since the processes' start takes what the registration above needs.
    engine = engine_for(settings.database_url)
    app.extensions[health.ENGINE] = engine
    sessions, kept = sessions_for(engine), KeptRigs()
    edits = Edits(sessions, kept)
    compute: Compute = InPlace(Computer(sessions, kept))
    long_work: LongWork | None = None
    if settings.compute_processes:
        pool = ComputePool(settings.database_url, settings.compute_processes)
        workers = QueueWorkers(settings.database_url, house_from_zip)
        long_work = LongWork(sessions, workers)
        compute = QueuedCompute(sessions, kept, pool, long_work, settings.runs_at_once)
        atexit.register(pool.close)
        atexit.register(workers.close)
    sign_ins, tester, cupboard = SignIns(sessions), Tester(settings.tester), Cupboard(sessions, kept, edits)
    app.extensions[EXTENSION] = UseCases(
        Rigs(sessions, kept),
        edits,
        Analyses(sessions, kept, compute),
        compute,
        long_work,
        People(sessions),
        sign_ins,
        Links(sessions),
        Venues(sessions, kept, edits),
        cupboard,
        Occasions(sessions, kept, edits),
        Finder(sessions, kept),
        LogBook(sessions, kept),
        LogLines(sessions),
        LeadTests(sessions, kept, edits, cupboard, tester),
        Pulling(edits, compute),
        tester,
        House(sessions, kept, cupboard),
        HouseImport(sessions, kept),
        Photos(sessions, kept),
        OwnDataReader(sessions, sign_ins),
    )
    app.extensions[who.SETTINGS] = settings
    return app
