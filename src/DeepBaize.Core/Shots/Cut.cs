using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Shots;

/// <summary>What is wrong with a pot, if anything.</summary>
public enum CutFault
{
    None,
    /// <summary>The cut would be 90° or more: the cue ball cannot reach that side of the object ball.</summary>
    TooThin,
    /// <summary>There is no clear way between the jaws: it can only go in off the far one. The aim is past the near one.</summary>
    OffJaw,
    /// <summary>The place where the cue ball would have to be at contact is in a cushion.</summary>
    NoRoom,
}

public enum Fullness { Full, ThreeQuarter, Half, Quarter, Fine }

/// <summary>
/// The plain geometry of a pot: the object ball goes along the middle of the pocket's opening, the cue ball to the ghost
/// ball. No squirt, swerve or throw.
/// </summary>
/// <param name="GhostX">Cue ball's centre at contact, m.</param>
/// <param name="GhostY">Cue ball's centre at contact, m.</param>
/// <param name="TargetX">Where the potting line meets the drop, m.</param>
/// <param name="TargetY">Where the potting line meets the drop, m.</param>
/// <param name="PotDegrees">Direction of the potting line.</param>
/// <param name="AimDegrees">Direction from the cue ball to the ghost ball.</param>
/// <param name="CutDegrees">φ between the two, 0 for a straight pot; + turns the object ball counter-clockwise, that is to the left.</param>
/// <param name="OpeningDegrees">The angle between the lines that just clear either jaw, as seen from the object ball.</param>
/// <param name="CueBallDistance">From the cue ball to the ghost ball, m.</param>
/// <param name="PotDistance">From the object ball to the drop, m.</param>
public readonly record struct Cut(
    Ball ObjectBall, Pocket Pocket, CutFault Fault,
    double GhostX, double GhostY, double TargetX, double TargetY, double PotDegrees, double AimDegrees,
    double CutDegrees, double OpeningDegrees, double CueBallDistance, double PotDistance)
{
    private double SinPhi => Math.Sin(Math.Abs(CutDegrees) * Math.PI / 180);

    /// <summary>How much of the object ball is covered at contact, 1 full to 0 a miss: 1 − sin φ.</summary>
    public double FullnessFraction => Math.Abs(CutDegrees) >= 90 ? 0 : 1 - SinPhi;

    /// <summary>The trade's word: the named fullness that is nearest.</summary>
    public Fullness Fullness => FullnessFraction switch
    {
        >= 0.875 => Fullness.Full,
        >= 0.625 => Fullness.ThreeQuarter,
        >= 0.375 => Fullness.Half,
        >= 0.125 => Fullness.Quarter,
        _ => Fullness.Fine,
    };

    /// <summary>Whether there is an aim at all.</summary>
    public bool CanBeAimed => Fault is CutFault.None or CutFault.OffJaw;

    /// <summary>How far the line of aim passes from the object ball's centre, m: 2R·sin φ. Half-ball is one radius, the ball's edge.</summary>
    public double AimOffset => 2 * BallRadius * SinPhi;

    /// <summary>Of the pocket's opening, how far from its middle the thick and the thin side are aimed at.</summary>
    private const double SideOfPocket = 0.3;

    /// <summary>The geometry of potting a ball into a pocket.</summary>
    /// <param name="part">Where in the opening: 0 the middle, −1 the thick side, +1 the thin side.</param>
    public static Cut Of(in PlacedBall cueBall, in PlacedBall objectBall, Pocket pocket, TableShape shape, double part = 0)
    {
        var (direction, opening) = Opening(objectBall.X, objectBall.Y, shape.PocketShapes[(int)pocket]);
        if (opening > 0 && part != 0)
        {
            // The thin side is the one towards which the cut turns the ball.
            var middle = Of(cueBall, objectBall, pocket, shape);
            direction += (middle.CutDegrees < 0 ? -1 : 1) * part * SideOfPocket * opening;
        }
        var (dy, dx) = Math.SinCos(direction);
        var (ghostX, ghostY) = (objectBall.X - 2 * BallRadius * dx, objectBall.Y - 2 * BallRadius * dy);
        var (towardsX, towardsY) = (ghostX - cueBall.X, ghostY - cueBall.Y);
        var distance = Math.Sqrt(towardsX * towardsX + towardsY * towardsY);
        // With the cue ball already there, the blow is straight along the potting line.
        var aim = distance < 1e-9 ? direction : Math.Atan2(towardsY, towardsX);
        var phi = Math.IEEERemainder(direction - aim, 2 * Math.PI);
        var potDistance = DistanceToDrop(objectBall, dx, dy, shape.PocketShapes[(int)pocket].Drop);
        var fault = Math.Abs(phi) >= Math.PI / 2 - 1e-9 ? CutFault.TooThin
            : !shape.CanRest(ghostX, ghostY) ? CutFault.NoRoom
            : opening <= 0 ? CutFault.OffJaw
            : CutFault.None;
        const double degrees = 180 / Math.PI;
        return new(objectBall.Ball, pocket, fault, ghostX, ghostY,
            objectBall.X + potDistance * dx, objectBall.Y + potDistance * dy,
            direction * degrees, aim * degrees, phi * degrees, opening * degrees, distance, potDistance);
    }

    /// <summary>
    /// The middle (radians) and the width (radians, not positive if closed) of the directions in which a ball's centre comes to
    /// the drop without touching a jaw: between the tangents to the jaws' arcs grown by a ball's radius, or, where a tangent
    /// touches only beyond the drop's edge, the line to that edge. With no such direction, the one that just clears the nearer jaw.
    /// </summary>
    public static (double Direction, double Opening) Opening(double x, double y, PocketShape pocket)
    {
        var toA = Math.Atan2(pocket.JawA.Y - y, pocket.JawA.X - x);
        var toB = Math.Atan2(pocket.JawB.Y - y, pocket.JawB.X - x);
        var turn = Math.Sign(Math.IEEERemainder(toB - toA, 2 * Math.PI));
        var a = Edge(x, y, toA, turn, pocket.JawA, pocket.LipA, pocket.Drop);
        var b = Edge(x, y, toB, -turn, pocket.JawB, pocket.LipB, pocket.Drop);
        var opening = turn * Math.IEEERemainder(b - a, 2 * Math.PI);
        if (opening > 0) return (a + turn * opening / 2, opening);
        // No clear way: past the nearer jaw on to the other.
        var nearA = Math.Pow(pocket.JawA.X - x, 2) + Math.Pow(pocket.JawA.Y - y, 2) < Math.Pow(pocket.JawB.X - x, 2) + Math.Pow(pocket.JawB.Y - y, 2);
        return (nearA ? a : b, opening);
    }

    private static double Edge(double x, double y, double toJaw, int turn, in Circle jaw, (double X, double Y) lip, in Circle drop)
    {
        var square = (jaw.X - x) * (jaw.X - x) + (jaw.Y - y) * (jaw.Y - y);
        var reach = jaw.Radius + BallRadius;
        var tangent = toJaw + turn * Math.Asin(Math.Min(1, reach / Math.Sqrt(square)));
        var length = Math.Sqrt(Math.Max(0, square - reach * reach));
        var (sin, cos) = Math.SinCos(tangent);
        return drop.Contains(x + length * cos, y + length * sin) ? Math.Atan2(lip.Y - y, lip.X - x) : tangent;
    }

    private static double DistanceToDrop(in PlacedBall ball, double dx, double dy, in Circle drop)
    {
        var (px, py) = (drop.X - ball.X, drop.Y - ball.Y);
        var along = px * dx + py * dy;
        var across = px * dy - py * dx;
        return along - Math.Sqrt(Math.Max(0, drop.Radius * drop.Radius - across * across));
    }
}
