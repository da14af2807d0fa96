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
from fenwick.core.line.network import Network, Node
from fenwick.core.line.relaxation import MAX_PASSES, MOST_PASSES, STRAGGLING_PASSES, Relaxation, most_taken, part_taken

SETTLED_PA = 1.0  #: what may be left then
PLAIN_PASSES = 3  #: the first steps are too wild to say anything about the next
GOES_WELL = 0.1  #: of what the pass before left: as long as less is left, steps need no thought [-]
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


class _Joint:
    """Where segments and leaks meet at the start of a segment."""

    def __init__(self, at: int, node: Node, room_density: Array) -> None:
        self.at = at
        self.children = np.array(node.children)
        self.cosines = np.empty((len(node.children), *room_density.shape))
        for row, cosine in zip(self.cosines, node.cosines, strict=True):
            row[:] = cosine
        self.least = LEAST_JOINT_SHARE if len(node.children) == 1 else LEAST_NODE_SHARE
        #: of each leak, what it lets through for the root of a suction [kg/(s Pa^½)]
        self.leaks = {name: _leak_conductance(area, room_density) for name, area in node.leaks}
        self.let_in = sum(self.leaks.values(), start=np.zeros(room_density.shape))


class _State:
    """Working arrays of one solution."""

    def __init__(self, network: Network, room: RoomAir) -> None:
        self.net, self.room = network, room
        shape = network.area_in.shape
        segments, n = network.segments, shape[1]
        self.gas = GAS_CONSTANT * np.asarray(room.temperature)
        self.room_density = np.broadcast_to(room.pressure / self.gas, (n,))
        self.mass = np.empty((len(segments), n))
        self.upstream_total = np.zeros(shape)
        self.loss = np.zeros(shape)
        self.momentum = np.ones((len(segments), n))
        self.rho_in = np.broadcast_to(self.room_density, shape)
        self.rho_out = self.rho_mean = self.rho_in
        self.parallel, self.recovered = np.zeros((len(segments), n)), np.zeros((len(segments), n))
        self.joints = [_Joint(i, s.node, self.room_density) for i, s in enumerate(segments) if s.node is not None]
        starts = np.array([s.start for s in segments])
        full = np.array([s.stop > s.start for s in segments])
        self.full = full[:, None]
        self.filled, self.filled_from = np.flatnonzero(full), starts[full]
        self.of_row = np.repeat(np.arange(len(segments)), [s.stop - s.start for s in segments])
        self.from_room = [s.start for s in segments if s.node is None and s.stop > s.start]
        self.first_rows = np.where(full, starts, np.maximum(starts - 1, 0))
        self.last_rows = np.array([s.stop - 1 if s.stop > s.start else max(s.start - 1, 0) for s in segments])
        self.area_start, self.area_end = np.empty(self.mass.shape), np.empty(self.mass.shape)
        for i, segment in enumerate(segments):
            self.area_start[i], self.area_end[i] = segment.area_start, segment.area_end
        self.reduced = np.zeros(self.mass.shape)
        self.take_heads()
        self.re_factor = network.bore[network.frictional] / (
            network.area_ref[network.frictional] * np.asarray(room.viscosity)
        )

    def spread(self) -> None:
        self.row_mass = self.mass[self.of_row]
        self.row_square = np.square(self.row_mass)

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
            resistance[row] = law(self.row_mass[row], self.rho_mean[row], self.row_mass)
        return np.asarray(resistance)

    def density(self, total_suction: Array, mass: Array, area: Values) -> Array:
        """Local density from p_static = p_room − suction_total − ½ṁ²/(ρA²), solved exactly, with its floor."""
        rest = np.maximum(self.room.pressure - total_suction, 0.2 * self.room.pressure)
        speed = mass / (area * rest)
        speed *= speed
        speed *= 2.0 * self.gas
        share = 0.5 + 0.5 * np.sqrt(1.0 - np.minimum(speed, FASTEST))
        if np.any(speed > FASTEST):  # goes on along its tangent
            share -= np.maximum(speed - FASTEST, 0.0) / (4.0 * np.sqrt(1.0 - FASTEST))
        rest *= share
        static = np.maximum(rest, LEAST_PRESSURE_SHARE * self.room.pressure)
        return np.asarray(static / self.gas)

    def take_heads(self) -> None:
        """½v²ρ/ṁ² at both ends of every segment [Pa s^2/kg^2], shape (segments, n), at the densities in hand."""
        rho_start = np.where(self.full, self.rho_in[self.first_rows], self.rho_out[self.first_rows])
        self.head_start = 1.0 / (2.0 * rho_start * np.square(self.area_start))
        self.head_end = 1.0 / (2.0 * self.rho_out[self.last_rows] * np.square(self.area_end))

    def recovery(self, joint: _Joint) -> Array:
        """(2S − 1) velocity heads of a trunk, held so that a node keeps some resistance."""
        i = joint.at
        wanted = (2.0 * self.momentum[i] - 1.0) * self.head_start[i]
        return np.asarray(np.minimum(wanted, (1.0 - joint.least) * self.parallel[i]))

    def arriving(self, joint: _Joint) -> Array:
        """Resistance from the room to a node along every arriving segment, shape (children, n)."""
        return np.asarray(self.reduced[joint.children] + self.head_end[joint.children])


def solve_network(network: Network, fan: Fan, room: RoomAir) -> Flows:
    """Find the flows of all variants at once.

    Parameters
    ----------
    network : rows of shape (rows, n)
    fan, room : shape (n,) or shared

    Raises
    ------
    NotConvergedError
        When some variant still changes by 1 Pa or more after 540 passes.
    """
    state = _State(network, room)
    state.mass[:] = 0.5 * fan.open_mass_flow / max(1, sum(s.node is None for s in network.segments))
    state.spread()
    resistance = state.fresh_resistance()
    relaxation: Relaxation | None = None
    passes, worst = 0, np.inf
    while True:
        passes += 1
        _reduce(state, resistance)
        before = state.mass.copy()
        state.mass[-1] = fan.meet(state.reduced[-1])
        _split(state)
        moved = _moved(state.mass, before)
        _walk(state, resistance, part_taken(passes))
        fresh = state.fresh_resistance()
        residual, momentum = _residual(state, resistance, fresh)
        last, worst = worst, float(np.max(residual))
        if moved <= TOLERANCE_FLOW and worst < TOLERANCE_PA:
            break
        if passes >= MAX_PASSES and worst < SETTLED_PA:
            break
        if passes >= MOST_PASSES:
            raise NotConvergedError(worst, passes)
        if passes > PLAIN_PASSES and worst > GOES_WELL * last:
            relaxation = relaxation or Relaxation()
        straggling = passes > STRAGGLING_PASSES
        resistance = relaxation.next(resistance, fresh, most_taken(passes)) if relaxation else fresh
        state.momentum = 0.5 * (state.momentum + momentum) if straggling else momentum
    return _flows(state, residual, passes)


def _moved(mass: Array, before: Array) -> float:
    """By which share the flow of any segment has moved at most."""
    return float(np.max(np.abs(mass - before) / np.maximum(mass, LEAST_FLOW * mass[-1])))


def _reduce(state: _State, resistance: Array) -> None:
    """Series and parallel resistance of everything upstream of each segment's end."""
    state.reduced[:] = 0.0
    state.reduced[state.filled] = np.add.reduceat(resistance, state.filled_from, axis=0)
    for joint in state.joints:
        i = joint.at
        let_in = joint.let_in + np.sum(1.0 / np.sqrt(state.arriving(joint)), axis=0)
        state.parallel[i] = 1.0 / np.square(let_in)
        state.recovered[i] = state.recovery(joint)
        state.reduced[i] += state.parallel[i] - state.recovered[i]


def _leak_conductance(area: Values, room_density: Array) -> Array:
    open_area = np.asarray(area, dtype=float)
    resistance = orifice_resistance(np.maximum(open_area, 1e-12), room_density)
    return np.asarray(np.where(open_area > 0.0, 1.0 / np.sqrt(resistance), 0.0))


def _split(state: _State) -> None:
    """Share each node's flow among what arrives."""
    for joint in reversed(state.joints):
        suction = state.parallel[joint.at] * np.square(state.mass[joint.at])
        state.mass[joint.children] = np.sqrt(suction / state.arriving(joint))
    state.spread()


def _walk(state: _State, resistance: Array, take: float) -> None:
    """Suctions and densities along the air, from the room to the fan."""
    net = state.net
    state.loss = resistance * state.row_square
    begin = (state.parallel - state.recovered) * np.square(state.mass)
    ahead = np.cumsum(state.loss, axis=0) - state.loss
    begin[state.filled] -= ahead[state.filled_from]  # what the sum over all rows held before
    state.upstream_total = ahead + begin[state.of_row]
    entering = state.density(state.upstream_total, state.row_mass, net.area_in)
    entering[state.from_room] = state.room_density  # the air in front of a port stands still
    leaving = state.density(state.upstream_total + state.loss, state.row_mass, net.area_out)
    if take < 1.0:
        entering, leaving = (a + take * (b - a) for a, b in ((state.rho_in, entering), (state.rho_out, leaving)))
    state.rho_in, state.rho_out = entering, leaving
    state.rho_mean = 0.5 * (state.rho_in + state.rho_out)
    state.take_heads()


def _residual(state: _State, used: Array, fresh: Array) -> tuple[Array, Array]:
    """Suction that fresh resistances and momenta would change, per variant; and those momenta."""
    change = np.sum(np.abs(fresh - used) * state.row_square, axis=0)
    momentum = state.momentum.copy()
    for joint in state.joints:
        i = joint.at
        momentum[i] = _arriving_momentum(state, joint)
        head = state.head_start[i] * np.square(state.mass[i])
        change = change + 2.0 * np.abs(momentum[i] - state.momentum[i]) * head
    return change, momentum


def _arriving_momentum(state: _State, joint: _Joint) -> Array:
    i = joint.at
    share = state.mass[joint.children] / np.maximum(state.mass[i], 1e-30)
    arriving = state.head_end[joint.children] * state.area_end[joint.children]
    speed_ratio = arriving / (state.head_start[i] * state.area_start[i])  # (1/ρA)_i over (1/ρA)_c
    return np.asarray(np.sum(np.square(share) * speed_ratio * joint.cosines, axis=0))


def _flows(state: _State, residual: Array, passes: int) -> Flows:
    leaks: dict[str, Array] = {}
    for joint in state.joints:
        root = np.sqrt(state.parallel[joint.at]) * state.mass[joint.at]
        leaks |= {name: conductance * root for name, conductance in joint.leaks.items()}
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
