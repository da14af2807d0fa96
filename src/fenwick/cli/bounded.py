"""The web server, held to bounds before anything of a request is kept: head, body by its address, and time."""

from __future__ import annotations

import copy
import socket
import time
from typing import Any

from flask import Flask
from waitress.channel import HTTPChannel
from waitress.parser import HTTPRequestParser
from waitress.server import TcpWSGIServer, create_server
from waitress.utilities import RequestEntityTooLarge

from fenwick.web.kit.bounds import FORM, bound_of, too_large

HEAD_BYTES = 65_536
IDLE = 20  #: after which a connection that says nothing is closed [s]
HEAD_WITHIN = 10.0  #: a head that is not whole by then is dropped, however busily it trickles [s]
SLOWEST = 20_000.0  #: of a body, on average [bytes/s]
CONNECTIONS = 500


class BoundedParser(HTTPRequestParser):  # type: ignore[misc]
    """A request that is refused as soon as its head tells that it brings too much."""

    adj: Any
    error: Any
    path: str = "/"

    def __init__(self, adj: Any) -> None:
        super().__init__(adj)
        self.begun = time.monotonic()

    def parse_header(self, header_plus: bytes) -> None:
        """Read the head, and hold the body to the bound of where it goes."""
        super().parse_header(header_plus)
        self.adj = copy.copy(self.adj)
        self.adj.max_request_body_size = bound_of(self.path) + 1

    def received(self, data: bytes) -> int:
        """Take some bytes; how many of them."""
        consumed = int(super().received(data))
        if isinstance(self.error, RequestEntityTooLarge):
            self.error = RequestEntityTooLarge(too_large(self.path))
        return consumed

    @property
    def overdue(self) -> bool:
        """Whether it takes longer than an honest one."""
        took = time.monotonic() - self.begun
        allowed = HEAD_WITHIN + (self.body_bytes_received + FORM) / SLOWEST if self.headers_finished else HEAD_WITHIN
        return not self.completed and took > allowed


class BoundedChannel(HTTPChannel):  # type: ignore[misc]
    """A connection whose request has to be there in time."""

    parser_class = BoundedParser

    def readable(self) -> bool:
        """Whether more is read; one that is overdue is closed."""
        if isinstance(self.request, BoundedParser) and self.request.overdue:
            self.will_close = True
        return bool(super().readable())


def bounded_server(app: Flask, listener: socket.socket, threads: int) -> TcpWSGIServer:
    """A server of an application on a socket that is bound."""
    server = create_server(
        app,
        sockets=[listener],
        threads=threads,
        connection_limit=CONNECTIONS,
        channel_timeout=IDLE,
        cleanup_interval=IDLE // 4,
        max_request_header_size=HEAD_BYTES,
        ident=None,
    )
    server.channel_class = BoundedChannel
    return server
