using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Strokes;

/// <summary>What is wrong with a pot, if anything.</summary>
public enum CutFault
{
    /// <summary>It can be aimed.</summary>
    None,

    /// <summary>The cut would be 90° or more: the cue ball cannot reach that side of the object ball.</summary>
    TooThin,

    /// <summary>There is no clear way between the jaws: it can only go in off the far one. The aim is past the near one.</summary>
    OffJaw,

    /// <summary>The place where the cue ball would have to be at contact is in a cushion.</summary>
    NoRoom,
}

/// <summary>
/// The plain geometry of a pot: the object ball goes along the middle of the pocket's opening, the cue ball to the ghost
/// ball. No squirt, swerve or throw; off a cushion as in a mirror.
/// </summary>
/// <param name="Pot">What is meant.</param>
/// <param name="ObjectBall">The ball that the cue ball strikes.</param>
/// <param name="Ghost">Cue ball's centre at contact, m.</param>
/// <param name="First">The way of the ball that is struck: to the drop, to the next ball, or to the cushion.</param>
/// <param name="Last">Of a plant or a double what comes after that, up to the drop.</param>
/// <param name="AimDegrees">Direction from the cue ball to the ghost ball.</param>
/// <param name="CutDegrees">
/// φ between the two, 0 for a straight pot; + turns the object ball counter-clockwise, that is to the left.
/// </param>
/// <param name="OpeningDegrees">The angle between the lines that just clear either jaw, as seen from where the last leg begins.</param>
/// <param name="CueBallDistance">From the cue ball to the ghost ball, m.</param>
public readonly record struct Cut(
    Pot Pot,
    Ball ObjectBall,
    CutFault Fault,
    Vec2 Ghost,
    Segment First,
    Segment? Last,
    double AimDegrees,
    double CutDegrees,
    double OpeningDegrees,
    double CueBallDistance
)
{
    /// <summary>The pocket.</summary>
    public Pocket Pocket => Pot.Pocket;

    /// <summary>Direct, plant, set or double.</summary>
    public PotKind Kind =>
        Pot.Off is not null ? PotKind.Double
        : !Pot.IsPlant ? PotKind.Direct
        : First.Length < Touching ? PotKind.Set
        : PotKind.Plant;

    /// <summary>Direction of the potting line: of the ball that is struck.</summary>
    public double PotDegrees { get; init; }

    /// <summary>Of a direct pot, how far off that direction it still goes in.</summary>
    public PotWindow Window { get; init; }

    /// <summary>Direction in which the ball is to come to the pocket.</summary>
    public double FinalDegrees => Last?.Direction.Degrees ?? PotDegrees;

    /// <summary>The ways of the object balls in their order, m.</summary>
    public IEnumerable<Segment> Legs => Last is { } last ? [First, last] : [First];

    /// <summary>All that object balls travel up to the drop, m.</summary>
    public double PotDistance => First.Length + (Last?.Length ?? 0);

    /// <summary>
    /// +1 if the ball on its last leg turns the way the struck ball turns, −1 if a second contact or a cushion has reversed it.
    /// </summary>
    public int CutSign => Last is null ? 1 : -1;

    /// <summary>
    /// Whether the ball lies tight on a cushion and is to go along it: then the cushion turns it whichever way the cue ball sends it, and
    /// the line no longer follows from the aim.
    /// </summary>
    public bool IsAlongCushion
    {
        get
        {
            const double tight = 0.002,
                most = 3 * Math.PI / 180;
            var (along, from) = (Angle.FromDegrees(PotDegrees).Unit, First.From);
            static bool Along(double distance, double into) => distance < BallRadius + tight && into > -most;
            return Kind == PotKind.Direct
                && (
                    Along(from.X, -along.X) || Along(Length - from.X, along.X) || Along(from.Y, -along.Y) || Along(Width - from.Y, along.Y)
                );
        }
    }

    private double SinPhi => Math.Sin(Math.Abs(CutDegrees) * Math.PI / 180);

    /// <summary>How much of the object ball is covered at contact, 1 full to 0 a miss: 1 − sin φ.</summary>
    public double FullnessFraction => Math.Abs(CutDegrees) >= 90 ? 0 : 1 - SinPhi;

    /// <summary>The trade's word: the named fullness that is nearest.</summary>
    public Fullness Fullness => Fullnesses.Nearest(FullnessFraction);

    /// <summary>Whether there is an aim at all.</summary>
    public bool CanBeAimed => Fault is CutFault.None or CutFault.OffJaw;

    /// <summary>
    /// How far the line of aim passes from the object ball's centre, m: 2R·sin φ. Half-ball is one radius, the ball's edge.
    /// </summary>
    public double AimOffset => 2 * BallRadius * SinPhi;

    /// <summary>Of the pocket's opening, how far from its middle the thick and the thin side are aimed at.</summary>
    private const double SideOfPocket = 0.3;

    /// <summary>Balls nearer than this touch, m.</summary>
    public const double Touching = 0.0005;

    /// <summary>The geometry of a pot on the table as it stands.</summary>
    public static Cut Of(Layout layout, Pot pot, TableShape shape)
    {
        var (cueBall, ball) = (layout.White, layout.Balls[pot.Slot]);
        if (pot.Off is { } cushion)
            return Double(cueBall, ball, pot, cushion, shape);
        return pot.IsPlant ? Plant(cueBall, layout.Balls[pot.Through], ball, pot, shape) : Direct(cueBall, ball, pot, shape);
    }

    /// <summary>The geometry of potting a ball straight into a pocket; the ball is taken as the first on the table.</summary>
    /// <param name="part">Where in the opening: 0 the middle, −1 the thick side, +1 the thin side.</param>
    public static Cut Of(in PlacedBall cueBall, in PlacedBall objectBall, Pocket pocket, TableShape shape, double part = 0) =>
        Direct(cueBall, objectBall, new(1, pocket, part), shape);

    private static Cut Direct(in PlacedBall cueBall, in PlacedBall ball, Pot pot, TableShape shape)
    {
        var pocket = shape.PocketShapes[(int)pot.Pocket];
        var (direction, opening, window) = PotWindow.Into(shape, pot.Pocket, ball.At);
        if (opening.Radians > 0 && pot.Part != 0)
        {
            // The thin side is the one towards which the cut turns the ball.
            var middle = Direct(cueBall, ball, pot with { Part = 0 }, shape);
            direction += (middle.CutDegrees < 0 ? -1 : 1) * pot.Part * SideOfPocket * opening;
        }
        return Of(cueBall, ball, pot, direction, new(ToDrop(ball.At, direction, pocket.Drop), null, opening, CutFault.None), shape) with
        {
            Window = window,
        };
    }

    private static Cut Plant(in PlacedBall cueBall, in PlacedBall struck, in PlacedBall ball, Pot pot, TableShape shape)
    {
        var pocket = shape.PocketShapes[(int)pot.Pocket];
        var (direction, opening) = Opening(ball.At, pocket);
        var meets = ball.At - 2 * BallRadius * direction.Unit;
        var touches = ball.Gap(struck.At) < Touching;
        // Balls in contact can only go on along the line of their centres.
        var towards = ((touches ? ball.At : meets) - struck.At).Direction;
        if (touches)
            meets = struck.At;
        var fault = Angle.Between(towards, direction).Abs.Radians >= Math.PI / 2 ? CutFault.TooThin : CutFault.None;
        return Of(
            cueBall,
            struck,
            pot,
            towards,
            new(new(struck.At, meets), ToDrop(ball.At, direction, pocket.Drop), opening, fault),
            shape
        );
    }

    private static Cut Double(in PlacedBall cueBall, in PlacedBall ball, Pot pot, Cushion cushion, TableShape shape)
    {
        var pocket = shape.PocketShapes[(int)pot.Pocket];
        // Where the middle of the opening begins: the point between the lips of the jaws.
        var target = cushion.Mirror((pocket.LipA + pocket.LipB) / 2);
        var (near, far) = (cushion.Distance(ball.At) - BallRadius, BallRadius - cushion.Distance(target));
        var share = near + far > 0 ? near / (near + far) : 0;
        var place = ball.At + share * (target - ball.At);
        var (direction, opening) = Opening(place, pocket);
        var fault = near <= 0 || !shape.CanRest(place) ? CutFault.NoRoom : CutFault.None;
        return Of(
            cueBall,
            ball,
            pot,
            (target - ball.At).Direction,
            new(new(ball.At, place), ToDrop(place, direction, pocket.Drop), opening, fault),
            shape
        );
    }

    /// <summary>The ways of the object balls to the pocket, and what is wrong with them before the cue ball comes into it.</summary>
    private readonly record struct Ways(Segment First, Segment? Last, Angle Opening, CutFault Fault);

    private static Cut Of(in PlacedBall cueBall, in PlacedBall struck, Pot pot, Angle direction, in Ways ways, TableShape shape)
    {
        var ghost = struck.At - 2 * BallRadius * direction.Unit;
        var towards = ghost - cueBall.At;
        var distance = towards.Length;
        // With the cue ball already there, the blow is straight along the potting line.
        var aim = distance < 1e-9 ? direction : towards.Direction;
        var phi = Angle.Between(aim, direction);
        var fault =
            phi.Abs.Radians >= Math.PI / 2 - 1e-9 ? CutFault.TooThin
            : ways.Fault != CutFault.None ? ways.Fault
            : !shape.CanRest(ghost) ? CutFault.NoRoom
            : ways.Opening.Radians <= 0 ? CutFault.OffJaw
            : CutFault.None;
        return new(pot, struck.Ball, fault, ghost, ways.First, ways.Last, aim.Degrees, phi.Degrees, ways.Opening.Degrees, distance)
        {
            PotDegrees = direction.Degrees,
        };
    }

    private static Segment ToDrop(Vec2 from, Angle direction, in Circle drop)
    {
        var (unit, towards) = (direction.Unit, drop.Centre - from);
        var across = towards.Cross(unit);
        var along = towards.Dot(unit) - Math.Sqrt(Math.Max(0, drop.Radius * drop.Radius - across * across));
        return new(from, from + along * unit);
    }

    /// <summary>
    /// The middle and the width (not positive if closed) of the directions in which a ball's centre comes to
    /// the drop without touching a jaw: between the tangents to the jaws' arcs grown by a ball's radius, or, where a tangent
    /// touches only beyond the drop's edge, the line to that edge. With no such direction, the one that just clears the nearer jaw.
    /// </summary>
    public static (Angle Direction, Angle Width) Opening(Vec2 from, PocketShape pocket)
    {
        var (toA, toB) = (pocket.JawA.Centre - from, pocket.JawB.Centre - from);
        var turn = Math.Sign(Angle.Between(toA.Direction, toB.Direction).Radians);
        var a = Edge(from, toA, turn, pocket.JawA, pocket.LipA, pocket.Drop);
        var b = Edge(from, toB, -turn, pocket.JawB, pocket.LipB, pocket.Drop);
        var width = turn * Angle.Between(a, b);
        if (width.Radians > 0)
        {
            var middle = a + 0.5 * turn * width;
            var toDrop = pocket.Drop.Centre - from;
            // A ball between the jaws falls whichever way it is pushed but back: what lies between the tangents there is the way out.
            return middle.Unit.Dot(toDrop) > 0 ? (middle, width) : (toDrop.Direction, Hanging);
        }
        // No clear way: past the nearer jaw on to the other.
        return (toA.SquaredLength < toB.SquaredLength ? a : b, width);
    }

    /// <summary>
    /// Width of the directions in which a ball that hangs between a corner's jaws falls: by strokes played, a little more than this.
    /// </summary>
    private static readonly Angle Hanging = Angle.FromDegrees(170);

    private static Angle Edge(Vec2 from, Vec2 toJaw, int turn, in Circle jaw, Vec2 lip, in Circle drop)
    {
        var square = toJaw.SquaredLength;
        var reach = jaw.Radius + BallRadius;
        var tangent = toJaw.Direction + turn * Angle.FromRadians(Math.Asin(Math.Min(1, reach / Math.Sqrt(square))));
        var length = Math.Sqrt(Math.Max(0, square - reach * reach));
        return drop.Contains(from + length * tangent.Unit) ? (lip - from).Direction : tangent;
    }
}
