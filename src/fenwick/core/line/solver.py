"""The operating point: flows at which the fan's suction equals the loss on every open path, mass conserved.

Each row is treated as R = Δp/ṁ². Per pass the network is reduced in series and parallel from the ports to the fan, met
with the fan curve, split back, and R is refreshed at the new flows. By that alone a laminar path, whose R goes with
1/ṁ, creeps, and one that chokes swings: so R is relaxed. Nodes hold *static* suction: every arriving segment
pays one velocity head of its own, and the trunk recovers (2S − 1) of its own, S = Σ (ṁ_i/ṁ_c)(v_i/v_c) cos α_i, the
momentum that arrives. Air is isothermal along the line; its density follows the local static pressure.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array, Values
from fenwick.core.components.vacuum import Curve
from fenwick.core.errors import NotConvergedError
from fenwick.core.formulas.air import GAS_CONSTANT
from fenwick.core.formulas.friction import friction_factor_colebrook
from fenwick.core.formulas.orifice import orifice_resistance
from fenwick.core.line.network import Network, Node, Segment
from fenwick.core.line.relaxation import Relaxation

MAX_PASSES = 60
PLAIN_PASSES = 3  #: the first steps are too wild to say anything about the next
STRAGGLING_PASSES = 20  #: after which a node's momentum is held back
TOLERANCE_PA = 0.01  #: summed over a line; the promise is 1 Pa
TOLERANCE_FLOW = 1e-4  #: of each flow from one pass to the next: beside a wide leak 0.01 Pa still move some [-]
LEAST_FLOW = 1e-4  #: of the fan's flow, below which nobody asks for a flow: what a shut gate lets pass [-]
LEAST_PRESSURE_SHARE = 0.5  #: density is never taken below that of half the room's pressure
FASTEST = 0.6  #: 2·velocity head over static and total pressure up to which density is exact: some 170 m/s [-]
LEAST_NODE_SHARE = 0.05  #: of its parallel resistance, what a junction keeps after recovery
LEAST_JOINT_SHARE = 0.002  #: likewise a joint with a leak, where nearly all of the velocity head goes on


@dataclass(frozen=True)
class RoomAir:
    """What the solver needs of the air, shape (n,) or shared."""

    pressure: Values  #: [Pa]
    temperature: Values  #: [K]
    viscosity: Values  #: [Pa s]


@dataclass(frozen=True)
class Fan:
    """The fan in room air."""

    curve: Curve
    room_density: Array  #: shape (n,) [kg/m^3]

    def meet(self, resistance: Array) -> Array:
        """Mass flow where its suction equals resistance·ṁ² [kg/s], shape (n,).

        Parameters
        ----------
        resistance : Δp/ṁ² of the line, shape (n,) [Pa s^2/kg^2]
        """
        return self.curve.meet(resistance, self.room_density)

    @property
    def open_mass_flow(self) -> Array:
        """With nothing in the way [kg/s]."""
        return np.asarray(self.curve.open_flow * self.room_density)


@dataclass(frozen=True)
class Flows:
    """The solved network."""

    mass_flow: Array  #: of each row [kg/s], shape (rows, n)
    loss: Array  #: of each row [Pa], shape (rows, n)
    total_suction: Array  #: below the room's pressure, at each row's end [Pa], shape (rows, n)
    static_suction: Array  #: as a gauge on the wall reads it, at each row's end [Pa], shape (rows, n)
    density_out: Array  #: at each row's end [kg/m^3], shape (rows, n)
    density_mean: Array  #: over each row [kg/m^3], shape (rows, n)
    leak_flow: dict[str, Array]  #: mass flow of each leak [kg/s], shape (n,)
    fan_mass_flow: Array  #: [kg/s], shape (n,)
    fan_suction: Array  #: total suction the line asks of the fan [Pa], shape (n,)
    passes: int  #: needed by the slowest variant
    residual: Array  #: what the last pass still changed [Pa], shape (n,)


class _State:
    """Working arrays of one solution."""

    def __init__(self, network: Network, room: RoomAir) -> None:
        self.net, self.room = network, room
        shape = network.area_in.shape
        n = shape[1]
        self.gas = GAS_CONSTANT * np.asarray(room.temperature)
        self.room_density = room.pressure / self.gas
        self.mass = np.empty((len(network.segments), n))
        self.row_mass = np.empty(shape)
        self.upstream_total = np.zeros(shape)
        self.loss = np.zeros(shape)
        self.momentum = np.ones((len(network.segments), n))
        self.rho_in = np.broadcast_to(self.room_density, shape)
        self.rho_out = self.rho_mean = self.rho_in
        self.parallel: dict[int, Array] = {}
        self.recovered: dict[int, Array] = {}  #: velocity heads that a trunk gets back behind its node
        segments = network.segments
        self.full = np.array([s.stop > s.start for s in segments])[:, None]
        self.first_rows = np.array([s.start if s.stop > s.start else max(s.start - 1, 0) for s in segments])
        self.last_rows = np.array([s.stop - 1 if s.stop > s.start else max(s.start - 1, 0) for s in segments])
        self.area_start = np.stack([np.broadcast_to(np.asarray(s.area_start, dtype=float), (n,)) for s in segments])
        self.area_end = np.stack([np.broadcast_to(np.asarray(s.area_end, dtype=float), (n,)) for s in segments])
        self.reduced: list[Array] = []
        self.take_heads()
        self.re_factor = network.bore[network.frictional] / (
            network.area_ref[network.frictional] * np.asarray(room.viscosity)
        )

    def spread(self) -> None:
        for i, segment in enumerate(self.net.segments):
            self.row_mass[segment.start : segment.stop] = self.mass[i]

    def fresh_resistance(self) -> Array:
        """R of every row at the flows and densities in hand."""
        net = self.net
        k = net.k0.copy()
        rows = net.frictional
        if rows.size:
            reynolds = self.row_mass[rows] * self.re_factor
            k[rows] += net.k1[rows] * friction_factor_colebrook(reynolds, net.relative_roughness[rows])
        resistance = k / (2.0 * self.rho_mean * net.area_ref**2)
        for row, law in net.laws:
            resistance[row] = law(self.row_mass[row], self.rho_mean[row])
        return np.asarray(resistance)

    def density(self, total_suction: Array, mass: Array, area: Values) -> Array:
        """Local density from p_static = p_room − suction_total − ½ṁ²/(ρA²), solved exactly, with its floor."""
        rest = np.maximum(self.room.pressure - total_suction, 0.2 * self.room.pressure)
        speed = 2.0 * self.gas * np.square(mass / (area * rest))
        exact = 0.5 * (1.0 + np.sqrt(np.maximum(1.0 - speed, 1.0 - FASTEST)))
        beyond = np.maximum(speed - FASTEST, 0.0) / (4.0 * np.sqrt(1.0 - FASTEST))  # goes on along its tangent
        static = np.maximum(rest * (exact - beyond), LEAST_PRESSURE_SHARE * self.room.pressure)
        return np.asarray(static / self.gas)

    def take_heads(self) -> None:
        """½v²ρ/ṁ² at both ends of every segment [Pa s^2/kg^2], shape (segments, n), at the densities in hand."""
        rho_start = np.where(self.full, self.rho_in[self.first_rows], self.rho_out[self.first_rows])
        self.head_start = 1.0 / (2.0 * rho_start * np.square(self.area_start))
        self.head_end = 1.0 / (2.0 * self.rho_out[self.last_rows] * np.square(self.area_end))

    def recovery(self, i: int) -> Array:
        """(2S − 1) velocity heads of a trunk, held so that a node keeps some resistance."""
        wanted = (2.0 * self.momentum[i] - 1.0) * self.head_start[i]
        node = self.net.segments[i].node
        least = LEAST_JOINT_SHARE if node is not None and len(node.children) == 1 else LEAST_NODE_SHARE
        return np.asarray(np.minimum(wanted, (1.0 - least) * self.parallel[i]))


def solve_network(network: Network, fan: Fan, room: RoomAir) -> Flows:
    """Find the flows of all variants at once.

    Parameters
    ----------
    network : rows of shape (rows, n)
    fan, room : shape (n,) or shared

    Raises
    ------
    NotConvergedError
        When some variant still changes by 1 Pa or more after 60 passes.
    """
    state = _State(network, room)
    state.mass[:] = 0.5 * fan.open_mass_flow / _width(network)
    state.spread()
    resistance = state.fresh_resistance()
    relaxation = Relaxation()
    passes = 0
    while True:
        passes += 1
        _reduce(state, resistance)
        before = state.mass.copy()
        state.mass[-1] = fan.meet(state.reduced[-1])
        _split(state)
        still = _still(state.mass, before)
        _walk(state, resistance)
        fresh = state.fresh_resistance()
        residual, momentum = _residual(state, resistance, fresh)
        worst = float(np.max(residual))
        if still and worst < TOLERANCE_PA:
            break
        if passes >= MAX_PASSES:
            if worst >= 1.0:
                raise NotConvergedError(worst, passes)
            break
        resistance = fresh if passes <= PLAIN_PASSES else relaxation.next(resistance, fresh)
        state.momentum = momentum if passes <= STRAGGLING_PASSES else 0.5 * (state.momentum + momentum)
    return _flows(state, residual, passes)


def _still(mass: Array, before: Array) -> bool:
    """Whether no flow of any segment has moved."""
    return bool(np.all(np.abs(mass - before) <= TOLERANCE_FLOW * np.maximum(mass, LEAST_FLOW * mass[-1])))


def _width(network: Network) -> int:
    return max(1, sum(1 for s in network.segments if s.node is None))


def _reduce(state: _State, resistance: Array) -> None:
    """Series and parallel resistance of everything upstream of each segment's end."""
    state.reduced = []
    for i, segment in enumerate(state.net.segments):
        total = np.sum(resistance[segment.start : segment.stop], axis=0)
        if segment.node is not None:
            paths = _paths(state, segment.node)
            state.parallel[i] = 1.0 / np.square(sum(1.0 / np.sqrt(path) for path in paths))
            state.recovered[i] = state.recovery(i)
            total = total + state.parallel[i] - state.recovered[i]
        state.reduced.append(total)


def _paths(state: _State, node: Node) -> list[Array]:
    """Resistance from the room to a node along every arriving segment and leak."""
    paths = [state.reduced[child] + state.head_end[child] for child in node.children]
    return paths + [_leak_resistance(state, area) for _, area in node.leaks if np.any(np.asarray(area) > 0.0)]


def _leak_resistance(state: _State, area: Values) -> Array:
    return np.asarray(orifice_resistance(np.maximum(area, 1e-12), state.room_density))


def _split(state: _State) -> None:
    """Share each node's flow among what arrives."""
    for i in range(len(state.net.segments) - 1, -1, -1):
        node = state.net.segments[i].node
        if node is None:
            continue
        suction = state.parallel[i] * np.square(state.mass[i])
        for child in node.children:
            path = state.reduced[child] + state.head_end[child]
            state.mass[child] = np.sqrt(suction / path)
    state.spread()


def _walk(state: _State, resistance: Array) -> None:
    """Suctions and densities along the air, from the room to the fan."""
    net = state.net
    state.loss = resistance * np.square(state.row_mass)
    for i, segment in enumerate(net.segments):
        rows = slice(segment.start, segment.stop)
        begin: Values = 0.0
        if segment.node is not None:
            begin = (state.parallel[i] - state.recovered[i]) * np.square(state.mass[i])
        summed = np.cumsum(state.loss[rows], axis=0)
        state.upstream_total[rows] = begin + summed - state.loss[rows]
    entering = state.density(state.upstream_total, state.row_mass, net.area_in)
    first = [s.start for s in net.segments if s.node is None and s.stop > s.start]
    entering[first] = state.room_density  # the air in front of a port stands still
    state.rho_in = entering
    state.rho_out = state.density(state.upstream_total + state.loss, state.row_mass, net.area_out)
    state.rho_mean = 0.5 * (state.rho_in + state.rho_out)
    state.take_heads()


def _residual(state: _State, used: Array, fresh: Array) -> tuple[Array, Array]:
    """Suction that fresh resistances and momenta would change, per variant; and those momenta."""
    change = np.sum(np.abs(fresh - used) * np.square(state.row_mass), axis=0)
    momentum = state.momentum.copy()
    for i, segment in enumerate(state.net.segments):
        if segment.node is None:
            continue
        trunk_head = state.head_start[i]
        momentum[i] = _arriving_momentum(state, segment, i, trunk_head)
        trunk = np.square(state.mass[i])
        change = change + 2.0 * np.abs(momentum[i] - state.momentum[i]) * trunk_head * trunk
    return change, momentum


def _arriving_momentum(state: _State, segment: Segment, i: int, trunk_head: Array) -> Array:
    node = segment.node
    assert node is not None
    trunk_mass = np.maximum(state.mass[i], 1e-30)
    total = np.zeros_like(trunk_mass)
    for child, cosine in zip(node.children, node.cosines, strict=True):
        arriving = state.net.segments[child]
        speed_ratio = (
            state.head_end[child] * arriving.area_end / (trunk_head * segment.area_start)
        )  # (1/ρA)_i over (1/ρA)_c
        total += np.square(state.mass[child] / trunk_mass) * speed_ratio * cosine
    return np.asarray(total)


def _flows(state: _State, residual: Array, passes: int) -> Flows:
    leaks = {}
    for i, segment in enumerate(state.net.segments):
        if segment.node is None:
            continue
        suction = state.parallel[i] * np.square(state.mass[i])
        for name, area in segment.node.leaks:
            flow = np.sqrt(suction / _leak_resistance(state, area))
            leaks[name] = np.where(np.asarray(area) > 0.0, flow, 0.0)
    total = state.upstream_total + state.loss
    head = np.square(state.row_mass) / (2.0 * state.rho_out * np.square(state.net.area_out))
    last = state.net.segments[-1]
    at_fan = total[last.stop - 1] if last.stop > last.start else state.reduced[-1] * np.square(state.mass[-1])
    return Flows(
        mass_flow=state.row_mass,
        loss=state.loss,
        total_suction=total,
        static_suction=total + head,
        density_out=state.rho_out,
        density_mean=state.rho_mean,
        leak_flow=leaks,
        fan_mass_flow=state.mass[-1].copy(),
        fan_suction=np.asarray(at_fan),
        passes=passes,
        residual=residual,
    )
