"""Trade words, each with one sentence, its formula and where it comes from."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Term:
    """One entry of the glossary."""

    name: str
    sentence: str
    formula: str
    source: str


TERMS: dict[str, Term] = {
    "air": Term(
        "Air at the tool",
        "The volume of room air that enters this tool port each second, at the room's own density, with the gates as "
        "they stand; in the table of ports and on the vacuum's page with this port open alone. A tool's other ports, "
        "an extra fan and leaks are not in it. It decides how much dust is caught.",
        "fan suction at flow Q = sum of all losses at flow Q",
        "Operating point of a fan on a system; worked out step by step behind the figure itself.",
    ),
    "caught": Term(
        "Caught at the port",
        "The share of the dust made that enters the port: floating dust by the air speed where it is made, flying "
        "chips as far as the tool throws them in and the port carries them.",
        "v = Q / (10 x² + A);  caught = 1 − 0.1^(r^1.5), r = v / v needed",
        "Dalla Valle; industrial ventilation practice; the exponent is a rule of thumb.",
    ),
    "escapes": Term(
        "Escapes to be breathed",
        "Of 100 g made, what floats past the port into the room's air, and what the vacuum blows back. For dust that "
        "harms most it comes before what is kept in the bin.",
        "floating × 0.1^(r^1.5), r = v / v needed",
        "Industrial ventilation practice; the exponent is a rule of thumb.",
    ),
    "tuning": Term(
        "Tuning",
        "The factors by which your line differs from its description, fitted to your readings; what is believed before "
        "counts as a reading too, and weighs less the more is read.",
        "least squares of (reading − model)/uncertainty and of ln(factor)/its spread",
        "Least squares with log-normal priors; intervals from the curvature at the fit.",
    ),
    "air_changes": Term(
        "Air changes",
        "How often an hour the room's air is renewed or cleaned, by how fast the dust of a cut fades.",
        "dust over the baseline = peak × e^(−λt);  air changes = 3600 λ",
        "Straight line through the logarithm of the readings, between nine tenths and a tenth of the peak.",
    ),
    "budget": Term(
        "What the uncertainty is made of",
        "Two readings for each mass, each as unsure as half a step of the scale; runs scatter besides, and the scatter "
        "holds the scale's part already.",
        "u(reading) = step/√12;  u(mass) = √2 u(reading);  u(mean) = scatter/√n",
        "Guide to the Expression of Uncertainty in Measurement (JCGM 100:2008).",
    ),
    "air_room": Term(
        "The air you breathe",
        "Fine dust in a well-mixed room: what escapes at the tool and comes through the filter builds up while the "
        "tool runs, and leaves with the room's air changes and through a room filter.",
        "dC/dt = S/V − λC;  down to a tenth after ln(10)/λ",
        "Well-mixed room; air changes by rule, or fitted from a monitor. For comparing, never a compliance figure.",
    ),
    "settling": Term(
        "Carrying speed",
        "The air speed in a hose. Below the dust's conveying velocity it settles, and the hose fills from the bottom.",
        "v = flow / area of the bore",
        "Industrial ventilation practice, by kind of dust.",
    ),
    "kept": Term(
        "Kept in the bin",
        "The share of the dust entering the separator that is still in the bin afterwards, size by size: thrown to the "
        "wall, fallen through the slot, and not blown back up.",
        "kept = share to the wall × share that stays, summed over the sizes",
        "Equilibrium orbit (Barth, Muschelknautz; Hoffmann & Stein 2008) and rules of thumb for the bin.",
    ),
    "grade": Term(
        "Grade curve",
        "The share of each grain size that is kept. At the cut size half of the grains reach the wall; the columns "
        "show how much of your dust there is of each size, and which part of it gets past.",
        "kept = 1 / (1 + (cut size / size)^m) × share that stays in the bin",
        "Equilibrium orbit for the wall, rules of thumb for the bin; cyclones by four published models.",
    ),
    "cut": Term(
        "Cut size",
        "The size of which half reaches the wall. Finer air speeds, a smaller body and a smoother wall cut finer.",
        "d50 = √(18 μ 0.9 Q / (2π (ρp − ρ) v² H))",
        "Barth, Muschelknautz; Hoffmann & Stein 2008, chapter 6.",
    ),
    "drop": Term(
        "Suction it costs",
        "What the swirl takes of the vacuum's suction: friction at the wall, and the spin that is lost in the outlet.",
        "Δp = f A ρ (v wall · v core)^1.5 / (2 · 0.9 Q) + [2 + r² + 3 r^(4/3)] ½ ρ v outlet²",
        "Barth, Muschelknautz; for flat chambers an extrapolation.",
    ),
    "inlet": Term(
        "Inlet speed",
        "The mean speed of the air as it enters. It makes the swirl: faster cuts finer and costs more suction.",
        "v = flow / area of the inlet",
        "Continuity.",
    ),
    "collapse": Term(
        "Bin against collapse",
        "The suction at which the bin's wall folds, over the suction of the blocked line. Below 1 it folds; under 1.5 "
        "a dent is enough.",
        "p = 2.42 E (t/D)^2.5 / ((1 − ν²)^0.75 (L/D − 0.45 √(t/D))) × 0.7",
        "Short-cylinder buckling; the 0.7 for real shells is a rule of thumb.",
    ),
    "suction": Term(
        "Suction on the wall",
        "What a gauge or a tube of water reads at a hole in the hose wall there: the static suction, which includes "
        "the air's own speed. It falls where the bore widens.",
        "static suction = total suction + ½ ρ v²",
        "Bernoulli; air density follows the local pressure.",
    ),
    "fate": Term(
        "Where the dust goes",
        "Of 100 g made at the tool: what the bin holds, what reaches the vacuum's filter, what escapes into the room "
        "air and what falls to the floor. An estimate for comparing, never a measure of compliance.",
        "made = bin + filter + exhaust + room air + floor",
        "Capture, separation and filter grades of the model, size by size.",
    ),
}
