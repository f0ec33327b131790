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

/// <summary>A straight piece of a ball's way, m.</summary>
public readonly record struct Leg(double FromX, double FromY, double ToX, double ToY)
{
    public double Degrees => Math.Atan2(ToY - FromY, ToX - FromX) * 180 / Math.PI;
    public double Length => Math.Sqrt((ToX - FromX) * (ToX - FromX) + (ToY - FromY) * (ToY - FromY));
}

/// <summary>
/// The plain geometry of a pot: the object ball goes along the middle of the pocket's opening, the cue ball to the ghost
/// ball. No squirt, swerve or throw; off a cushion as in a mirror.
/// </summary>
/// <param name="Pot">What is meant.</param>
/// <param name="ObjectBall">The ball that the cue ball strikes.</param>
/// <param name="GhostX">Cue ball's centre at contact, m.</param>
/// <param name="GhostY">Cue ball's centre at contact, m.</param>
/// <param name="First">The way of the ball that is struck: to the drop, to the next ball, or to the cushion.</param>
/// <param name="Last">Of a plant or a double what comes after that, up to the drop.</param>
/// <param name="AimDegrees">Direction from the cue ball to the ghost ball.</param>
/// <param name="CutDegrees">φ between the two, 0 for a straight pot; + turns the object ball counter-clockwise, that is to the left.</param>
/// <param name="OpeningDegrees">The angle between the lines that just clear either jaw, as seen from where the last leg begins.</param>
/// <param name="CueBallDistance">From the cue ball to the ghost ball, m.</param>
public readonly record struct Cut(
    Pot Pot, Ball ObjectBall, CutFault Fault,
    double GhostX, double GhostY, Leg First, Leg? Last, double AimDegrees,
    double CutDegrees, double OpeningDegrees, double CueBallDistance)
{
    public Pocket Pocket => Pot.Pocket;

    public PotKind Kind => Pot.Off is not null ? PotKind.Double : !Pot.IsPlant ? PotKind.Direct : First.Length < Touching ? PotKind.Set : PotKind.Plant;

    /// <summary>Direction of the potting line: of the ball that is struck.</summary>
    public double PotDegrees { get; init; }

    /// <summary>Where the potting line ends: at the drop, at the next ball or at the cushion, m.</summary>
    public double TargetX => First.ToX;
    public double TargetY => First.ToY;

    /// <summary>Direction in which the ball is to come to the pocket.</summary>
    public double FinalDegrees => Last?.Degrees ?? PotDegrees;

    public IEnumerable<Leg> Legs => Last is { } last ? [First, last] : [First];

    /// <summary>All that object balls travel up to the drop, m.</summary>
    public double PotDistance => First.Length + (Last?.Length ?? 0);

    /// <summary>+1 if the ball on its last leg turns the way the struck ball turns, −1 if a second contact or a cushion has reversed it.</summary>
    public int Turn => Last is null ? 1 : -1;

    /// <summary>
    /// Whether the ball lies tight on a cushion and is to go along it: then the cushion turns it whichever way the cue ball sends it, and the
    /// line no longer follows from the aim.
    /// </summary>
    public bool IsAlongCushion
    {
        get
        {
            const double tight = 0.002, most = 3 * Math.PI / 180;
            var (s, c) = Math.SinCos(PotDegrees * Math.PI / 180);
            var (x, y) = (First.FromX, First.FromY);
            static bool Along(double distance, double into) => distance < BallRadius + tight && into > -most;
            return Kind == PotKind.Direct && (Along(x, -c) || Along(Length - x, c) || Along(y, -s) || Along(Width - y, s));
        }
    }

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

    /// <summary>Balls nearer than this touch, m.</summary>
    public const double Touching = 0.0005;

    /// <summary>The geometry of a pot on the table as it stands.</summary>
    public static Cut Of(Layout layout, Pot pot, TableShape shape)
    {
        var (cueBall, ball) = (layout.White, layout.Balls[pot.Slot]);
        if (pot.Off is { } cushion) return Double(cueBall, ball, pot, cushion, shape);
        return pot.IsPlant ? Plant(cueBall, layout.Balls[pot.Through], ball, pot, shape) : Direct(cueBall, ball, pot, shape);
    }

    /// <summary>The geometry of potting a ball straight into a pocket; the ball is taken as the first on the table.</summary>
    /// <param name="part">Where in the opening: 0 the middle, −1 the thick side, +1 the thin side.</param>
    public static Cut Of(in PlacedBall cueBall, in PlacedBall objectBall, Pocket pocket, TableShape shape, double part = 0) =>
        Direct(cueBall, objectBall, new(1, pocket, part), shape);

    private static Cut Direct(in PlacedBall cueBall, in PlacedBall ball, Pot pot, TableShape shape)
    {
        var pocket = shape.PocketShapes[(int)pot.Pocket];
        var (direction, opening) = Opening(ball.X, ball.Y, pocket);
        if (opening > 0 && pot.Part != 0)
        {
            // The thin side is the one towards which the cut turns the ball.
            var middle = Direct(cueBall, ball, pot with { Part = 0 }, shape);
            direction += (middle.CutDegrees < 0 ? -1 : 1) * pot.Part * SideOfPocket * opening;
        }
        return Of(cueBall, ball, pot, direction, ToDrop(ball.X, ball.Y, direction, pocket.Drop), null, opening, CutFault.None, shape);
    }

    private static Cut Plant(in PlacedBall cueBall, in PlacedBall struck, in PlacedBall ball, Pot pot, TableShape shape)
    {
        var pocket = shape.PocketShapes[(int)pot.Pocket];
        var (direction, opening) = Opening(ball.X, ball.Y, pocket);
        var (dy, dx) = Math.SinCos(direction);
        var (x, y) = (ball.X - 2 * BallRadius * dx, ball.Y - 2 * BallRadius * dy);
        var touches = Layout.Gap(struck.X, struck.Y, ball) < Touching;
        // Balls in contact can only go on along the line of their centres.
        var towards = touches ? Math.Atan2(ball.Y - struck.Y, ball.X - struck.X) : Math.Atan2(y - struck.Y, x - struck.X);
        if (touches) (x, y) = (struck.X, struck.Y);
        var between = Math.Abs(Math.IEEERemainder(direction - towards, 2 * Math.PI));
        return Of(cueBall, struck, pot, towards, new(struck.X, struck.Y, x, y), ToDrop(ball.X, ball.Y, direction, pocket.Drop), opening,
            between >= Math.PI / 2 ? CutFault.TooThin : CutFault.None, shape);
    }

    private static Cut Double(in PlacedBall cueBall, in PlacedBall ball, Pot pot, Cushion cushion, TableShape shape)
    {
        var pocket = shape.PocketShapes[(int)pot.Pocket];
        // Where the middle of the opening begins: the point between the lips of the jaws.
        var (tx, ty) = cushion.Mirror((pocket.LipA.X + pocket.LipB.X) / 2, (pocket.LipA.Y + pocket.LipB.Y) / 2);
        var (near, far) = (cushion.Distance(ball.X, ball.Y) - BallRadius, BallRadius - cushion.Distance(tx, ty));
        var share = near + far > 0 ? near / (near + far) : 0;
        var (x, y) = (ball.X + share * (tx - ball.X), ball.Y + share * (ty - ball.Y));
        var (direction, opening) = Opening(x, y, pocket);
        return Of(cueBall, ball, pot, Math.Atan2(ty - ball.Y, tx - ball.X), new(ball.X, ball.Y, x, y), ToDrop(x, y, direction, pocket.Drop), opening,
            near <= 0 || !shape.CanRest(x, y) ? CutFault.NoRoom : CutFault.None, shape);
    }

    private static Cut Of(
        in PlacedBall cueBall, in PlacedBall struck, Pot pot, double direction, Leg first, Leg? last, double opening, CutFault fault, TableShape shape)
    {
        var (dy, dx) = Math.SinCos(direction);
        var (ghostX, ghostY) = (struck.X - 2 * BallRadius * dx, struck.Y - 2 * BallRadius * dy);
        var (towardsX, towardsY) = (ghostX - cueBall.X, ghostY - cueBall.Y);
        var distance = Math.Sqrt(towardsX * towardsX + towardsY * towardsY);
        // With the cue ball already there, the blow is straight along the potting line.
        var aim = distance < 1e-9 ? direction : Math.Atan2(towardsY, towardsX);
        var phi = Math.IEEERemainder(direction - aim, 2 * Math.PI);
        fault = Math.Abs(phi) >= Math.PI / 2 - 1e-9 ? CutFault.TooThin
            : fault != CutFault.None ? fault
            : !shape.CanRest(ghostX, ghostY) ? CutFault.NoRoom
            : opening <= 0 ? CutFault.OffJaw
            : CutFault.None;
        const double degrees = 180 / Math.PI;
        return new(pot, struck.Ball, fault, ghostX, ghostY, first, last, aim * degrees, phi * degrees, opening * degrees, distance) { PotDegrees = direction * degrees };
    }

    private static Leg ToDrop(double x, double y, double direction, in Circle drop)
    {
        var (dy, dx) = Math.SinCos(direction);
        var (px, py) = (drop.X - x, drop.Y - y);
        var across = px * dy - py * dx;
        var along = px * dx + py * dy - Math.Sqrt(Math.Max(0, drop.Radius * drop.Radius - across * across));
        return new(x, y, x + along * dx, y + along * dy);
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
}
