"""Short proofs of the rules that not every class knows as theorems, each from rules that stand before it."""

from __future__ import annotations

from ...reason.rules import RuleName
from ..language import marked

N = RuleName

OWN_PROOFS: dict[str, tuple[str, ...]] = {
    N.BISECTOR_LINE: (
        marked("Triangles APQ and BPQ have three equal sides: angle APQ = angle BPQ."),
        marked("So PQ is the bisector at the apex of the isosceles triangle APB, which is perpendicular to its base."),
    ),
    N.ALTITUDES: (
        marked("The parallels to the sides through the corners opposite make a triangle with A, B and C as midpoints."),
        marked("So the altitudes of ABC are the perpendicular bisectors of the sides of that triangle."),
        marked("A point on two of these is equally far from all three corners, so it lies on the third."),
    ),
    N.INCENTRE: (
        marked("The perpendiculars from I to AB and BC are equal, since I lies on the bisector at B (AAS)."),
        marked("Those to BC and CA are equal likewise, since it lies on the bisector at C."),
        marked("So I is as far from AB as from CA: it lies on the bisector at A (right angle, hypotenuse and side)."),
    ),
    N.QUARTER_TURN: (
        marked("Angle DAC = angle BAE: each is a right angle with the same angle added or taken away."),
        marked("So triangles DAC and BAE are congruent (SAS), the one turned about A by a right angle into the other."),
        marked("Each side is turned by a right angle with them."),
    ),
    N.MIRRORED_ROW: (
        marked("Mirror images are as far apart as what they are images of: DE = AB, EF = BC and DF = AC."),
        marked("Of the distances between points in a row two make the third; so D, E and F lie in a row as well."),
    ),
    N.ONE_ANGLE: (
        marked("If AC and AD were different rays on one side of AB, one would lie inside the angle of the other."),
        marked("Then angle BAC and angle BAD would not be equal."),
    ),
    N.SUPPLEMENTARY_BISECTORS: (
        marked("Angle XVB is half of angle AVB, and angle BVY half of angle BVC."),
        marked("Both angles make 180°, so their halves make 90°."),
    ),
    N.CO_INTERIOR_BISECTORS: (
        marked("The angles between the parallels and AB make 180°, so their halves make 90°."),
        marked("These halves are two angles of triangle ABX; what is left for the third is 90°."),
    ),
    N.EQUAL_TRIANGLES: (
        marked("The triangles are congruent, so their heights on AB, which both have, are equal."),
        marked("Two points on one side of AB, as far from it, lie on a parallel (one pair of sides)."),
    ),
    N.THIRTY: (
        marked("By Thales’ converse MC = MA, and AC = AM: triangle AMC is equilateral."),
        marked("So the angle at A is 60°, and 30° are left for the angle at B."),
    ),
    N.OPPOSITE_THIRTY: (
        marked("Let M be the midpoint of AB: by Thales’ converse MC = MA = MB."),
        marked("The angle at A is 60°, so the isosceles triangle AMC is equilateral, and AC = AM."),
    ),
    N.EQUAL_CHORDS: (
        marked("Triangles OAB and OCD are congruent: four radii, and AB = CD (SSS)."),
        marked("So their heights from O are equal, and the one is OM, the radius of i."),
        marked("A line that is perpendicular to a radius at its end touches the circle."),
    ),
    N.TANGENT_AT_APEX: (
        marked("P and the centre are each as far from Q as from R: they span the perpendicular bisector of QR."),
        marked("So the radius to P is perpendicular to QR, and to its parallel l."),
        marked("A line that is perpendicular to a radius at its end touches the circle."),
    ),
    N.EQUAL_TANGENTS: (
        marked("The radii to A and B are perpendicular to the tangents."),
        marked("The right triangles have OP in common, and two radii as sides: they are congruent."),
    ),
    N.TANGENT_CHORD: (
        marked("The radius to A is perpendicular to the tangent: angle TAB is a right angle less angle OAB."),
        marked("Triangle OAB is isosceles: angle AOB = 180° − 2 · angle OAB, twice angle TAB."),
        marked("Angle ACB is half of the angle at the centre, so it equals angle TAB."),
    ),
    N.BISECTOR_AT_ARC: (
        marked("Let the perpendicular bisector of BC meet k in N′, on the side of BC where A is not."),
        marked("The chords BN′ and N′C are equal, so angle BAN′ = angle N′AC: N′ lies on the bisector."),
        marked("Since AB and AC differ, both lines have one point in common only: N is N′."),
    ),
    N.HEXAGON_SIDE: (
        marked("Angle AOB = 60° and angle COD = 60°, so 60° are left for angle BOC."),
        marked("OB = OC, so triangle OBC is equilateral as well."),
    ),
    N.HEXAGON_LINE: (marked("Each of the three angles at O is 60°; together they make 180°, a straight angle."),),
    N.HEXAGON_TRIANGLE: (
        marked("Angles BOD and COD are 60°, so angles AOB and AOC are 120°, and angle BOC is 120° as well."),
        marked("Triangles AOB and BOC are congruent (SAS)."),
    ),
    N.MEDIANS: (
        marked("MN is a midline: it is parallel to AB and half as long."),
        marked("So, by the intercept theorem at S, SM : SA = MN : AB = 1 : 2."),
    ),
    N.MEDIAN_THROUGH: (
        marked("Two medians cut each other in the ratio 2 : 1, so AN meets CM a third of the way up from M."),
        marked("There is only one such point on CM: it is S."),
    ),
    N.CEVA_MIDPOINT: (
        marked("Let the parallel to AB through X meet SA in P and SB in Q."),
        marked("XP : AB = CX : CB and XQ : AB = DX : DA; both are equal, since CD ∥ AB. So XP = XQ."),
        marked("From S, AB is cut as PQ is: M halves AB."),
    ),
    N.CEVA_PARALLEL: (
        marked("Let the parallel to AB through C meet SB in D′. Then AD′ and BC cross on SM, since M halves AB."),
        marked("BC meets SM in X alone, so AD′ passes through X: D′ is D."),
    ),
}
"""For each rule that has one the lines of its proof, in the letters of its row."""
