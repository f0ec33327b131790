using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Players;

/// <summary>How a player stands to a stroke.</summary>
public enum Stance
{
    /// <summary>Reached with ease.</summary>
    Natural,

    /// <summary>Leaning far out, the grip at the butt's end.</summary>
    Stretch,

    /// <summary>Only with the cue in the other hand.</summary>
    OtherHand,

    /// <summary>Only with a rest.</summary>
    Rest,
}

/// <summary>
/// How a player gets at the cue ball, and what it costs. The figures are common practice, no source; see docs/model.md, "Reach".
/// </summary>
/// <param name="ElevationDegrees">
/// Least that the butt must be raised for the cue to clear rail and balls; 0 if it lies level, as players call it.
/// </param>
/// <param name="Over">The ball that it must be raised over; null if that is a rail, or nothing.</param>
/// <param name="BridgeOver">A ball where the bridge hand would stand: it must bridge over it.</param>
/// <param name="ErrorFactor">By how much the errors of direction, sighting and tip grow; at least 1.</param>
/// <param name="LeastDegrees">The least elevation itself, however little: that at which the cue just clears rail, balls and hand.</param>
/// <param name="ButtDegrees">At which it is played where nobody says otherwise: naturally, or as much more as it must.</param>
public readonly record struct Reach(
    Stance Stance,
    double ElevationDegrees,
    Ball? Over,
    Ball? BridgeOver,
    double ErrorFactor,
    double LeastDegrees,
    double ButtDegrees
)
{
    // Distances, m.
    private const double BridgeLength = 0.22,
        Rail = 0.11,
        BodyFromRail = 0.05,
        CueLength = 1.47;

    // What the cue has to pass over, m: the nose, and the rail's top, which begins so far behind it; the cue's radius at the tip, and what
    // it gains in a metre; what a hand flat on the rail takes up under it.
    private const double NoseTop = 1.4 * BallRadius,
        RailTop = 0.043,
        ToRailTop = 0.05,
        TipRadius = 0.005,
        TaperPerMetre = 0.004,
        HandOnRail = 0.002;

    // Of the player's height: from the hip at the table's edge to the bridge hand, and from the hip to the line of the cue beside it.
    private const double NaturalReach = 0.48,
        NaturalBeside = 0.32,
        StretchedReach = 0.62,
        StretchedBeside = 0.5;

    // Where the body can be else: little across the cue on the grip's side, and always behind the bridge, m.
    private const double AcrossTheCue = 0.15,
        BehindTheBridge = 0.25;

    /// <summary>From an edge that lies behind the cue ball a player may step back so far, m.</summary>
    private const double StepBack = 0.3;

    // What a hand that bridges takes up behind the cue ball, m.
    private const double HandNear = 0.08,
        HandFar = 0.30,
        HandBeside = 0.045;

    /// <summary>So low a cue can lie in a hand on the cloth, m.</summary>
    private const double HandTop = 0.018;

    /// <summary>A stretch costs so much of what the rest would cost.</summary>
    private const double ShareOfStretch = 0.5;

    /// <summary>So little is rounding: what is just within reach for one hand is for the other, m.</summary>
    private const double Hair = 1e-9;

    // Up to so much every cue is raised, and is called level; above it, every so many degrees add as much error again.
    private const double LevelDegrees = 5,
        DegreesPerFactor = 15;

    /// <param name="stroke">The aim counts, and the height of the tip: a high strike needs less raising.</param>
    public static Reach Of(Layout layout, in Stroke stroke, Player player)
    {
        var aim = Angle.FromDegrees(stroke.AimDegrees).Unit;
        var (least, over) = Elevation(layout, stroke, aim);
        var elevation = least <= LevelDegrees ? 0 : least;
        var bridgeOver = Bridged(layout, aim);
        var stance = StanceOf(layout.White.At, aim, player);
        var rest = player.Skill.RestFactor;
        var factor = stance switch
        {
            Stance.Stretch => 1 + ShareOfStretch * (rest - 1),
            Stance.OtherHand or Stance.Rest => rest,
            _ => 1,
        };
        // The raised butt that goes with it comes on top.
        if (bridgeOver is not null && stance != Stance.Rest)
            factor *= rest;
        factor *= 1 + Math.Max(0, Math.Max(elevation, stroke.ElevationDegrees) - LevelDegrees) / DegreesPerFactor;
        return new(stance, elevation, elevation > 0 ? over : null, bridgeOver, factor, least, Math.Max(player.NaturalElevation, least));
    }

    /// <summary>The least elevation alone, degrees.</summary>
    public static double LeastFor(Layout layout, in Stroke stroke) =>
        Elevation(layout, stroke, Angle.FromDegrees(stroke.AimDegrees).Unit).Degrees;

    /// <summary>The elevation at which a stroke is played where nobody says otherwise, degrees.</summary>
    public static double ButtFor(Layout layout, in Stroke stroke, Player player) =>
        Math.Max(player.NaturalElevation, LeastFor(layout, stroke));

    /// <summary>
    /// The height at which a plain ball is struck, tips: the centre, or, where a cushion or a ball behind the white would raise the butt,
    /// the least height above it at which the butt may lie level as players call it, if there is one that leaves the tip room. Common
    /// practice, no source.
    /// </summary>
    /// <param name="stroke">Its aim and side count.</param>
    public static double PlainHeightFor(Layout layout, in Stroke stroke)
    {
        var height = 0.0;
        while (height < HighestPlain && LeastFor(layout, stroke with { HeightTips = height }) > LevelDegrees)
            height += 0.25;
        return height;
    }

    /// <summary>
    /// Of a stroke whose butt must be raised: the height at which it need be less, tips, and how high then, degrees; null if striking
    /// higher does not help.
    /// </summary>
    public static (double HeightTips, double Degrees)? HigherFor(Layout layout, in Stroke stroke)
    {
        const double worthIt = 1;
        var now = LeastFor(layout, stroke);
        if (now <= LevelDegrees)
            return null;
        var height = PlainHeightFor(layout, stroke);
        var then = LeastFor(layout, stroke with { HeightTips = height });
        return height > stroke.HeightTips && then < now - worthIt ? (height, then) : null;
    }

    /// <summary>Higher than this a ball is struck only if that is asked for, tips: it leaves a tip's half to the edge.</summary>
    private const double HighestPlain = 1;

    /// <summary>How the cue lies in a stroke, seen from the side.</summary>
    public static CueSide SideOf(Layout layout, in Stroke stroke)
    {
        var aim = Angle.FromDegrees(stroke.AimDegrees).Unit;
        var (nose, straight) = ToNose(layout.White.At, -aim);
        var (sin, cos) = Math.SinCos(stroke.ElevationDegrees * Math.PI / 180);
        var height = stroke.HeightTips * Tip.MillimetresPerTip / 1000;
        var slope = sin / cos;
        double Axis(double behind) => BallRadius + height / cos + behind * slope;
        var balls = new List<double>();
        for (var i = 1; i < layout.Balls.Count; i++)
        {
            var (behind, beside) = Behind(layout, i, aim);
            if (behind > 0 && behind < CueLength && Math.Abs(beside) < BallRadius + CueRadius(behind))
                balls.Add(behind);
        }
        return new(
            AxisAtBall: Axis(0),
            Slope: slope,
            BridgeBehind: BridgeLength,
            BridgeHeight: Math.Max(0, Axis(BridgeLength) - CueRadius(BridgeLength)),
            NoseBehind: nose < CueLength ? nose : null,
            RailBehind: nose < CueLength ? nose + ToRailTop / straight : null,
            BallsBehind: balls
        );
    }

    /// <summary>Heights of a cushion's nose and of the rail's top above the bed, m, for a view from the side.</summary>
    public static (double Nose, double Rail) Heights => (NoseTop, RailTop);

    private static Stance StanceOf(Vec2 white, Vec2 aim, Player player)
    {
        var other = player.Hand == Hand.Right ? Hand.Left : Hand.Right;
        bool Natural(Hand hand) => CanStand(white, aim, hand, NaturalReach * player.Height, NaturalBeside * player.Height);
        return Natural(player.Hand) ? Stance.Natural
            : CanStand(white, aim, player.Hand, StretchedReach * player.Height, StretchedBeside * player.Height) ? Stance.Stretch
            : Natural(other) ? Stance.OtherHand
            : Stance.Rest;
    }

    /// <summary>
    /// Whether there is a place at the table's edge from which this hand bridges: no farther off and no farther beside the cue than this,
    /// m.
    /// </summary>
    private static bool CanStand(Vec2 white, Vec2 aim, Hand hand, double reach, double most)
    {
        var bridge = white - BridgeLength * aim;
        // A right-hander's body is to the left of the cue.
        var side = hand == Hand.Right ? 1 : -1;
        const double beyond = Rail + BodyFromRail;
        bool Along(Vec2 from, Vec2 to, Vec2 outward)
        {
            // The part of this edge that is far enough behind, not too far beside either way, and within reach.
            var (start, way) = (from - bridge, to - from);
            var (first, last) = (0.0, 1.0);
            void AtLeast(double at, double change, double least)
            {
                if (change > 0)
                    first = Math.Max(first, (least - at) / change);
                else if (change < 0)
                    last = Math.Min(last, (least - at) / change);
                else if (at < least)
                    last = -1;
            }
            AtLeast(-start.Dot(aim), -way.Dot(aim), BehindTheBridge - StepBack * Math.Max(0, -outward.Dot(aim)));
            AtLeast(side * aim.Cross(start), side * aim.Cross(way), -AcrossTheCue);
            AtLeast(-side * aim.Cross(start), -side * aim.Cross(way), -most);
            if (first > last + Hair)
                return false;
            var nearest = Math.Clamp(-start.Dot(way) / way.SquaredLength, Math.Min(first, last), last);
            return (start + nearest * way).Length <= reach + Hair;
        }
        var (low, high) = (new Vec2(-beyond, -beyond), new Vec2(Length + beyond, Width + beyond));
        var (right, left) = (new Vec2(high.X, low.Y), new Vec2(low.X, high.Y));
        return Along(low, right, new(0, -1))
            || Along(left, high, new(0, 1))
            || Along(low, left, new(-1, 0))
            || Along(right, high, new(1, 0));
    }

    private static Ball? Bridged(Layout layout, Vec2 aim)
    {
        for (var i = 1; i < layout.Balls.Count; i++)
        {
            var (behind, beside) = Behind(layout, i, aim);
            if (behind is > HandNear and < HandFar && Math.Abs(beside) < HandBeside + BallRadius)
                return layout.Balls[i].Ball;
        }
        return null;
    }

    /// <summary>Where a ball lies from the cue ball: behind it along the cue, and to the left.</summary>
    private static (double Behind, double Beside) Behind(Layout layout, int slot, Vec2 aim)
    {
        var ball = layout.Balls[slot].At - layout.White.At;
        return (-ball.Dot(aim), aim.Cross(ball));
    }

    private static (double Degrees, Ball? Over) Elevation(Layout layout, in Stroke stroke, Vec2 aim)
    {
        // What stands in the cue's way.
        Span<Block> blocks = stackalloc Block[Ball.Count + 2];
        var count = 0;
        var (nose, straight) = ToNose(layout.White.At, -aim);
        if (nose < CueLength)
        {
            blocks[count++] = Block.Edge(nose, NoseTop, straight);
            // Near a rail the hand is on that.
            var hand = nose < BridgeLength ? HandOnRail : 0;
            blocks[count++] = Block.Edge(nose + ToRailTop / straight, RailTop + hand, straight);
        }
        if (nose > BridgeLength)
            blocks[count++] = Block.Edge(BridgeLength, HandTop, 1);
        for (var i = 1; i < layout.Balls.Count; i++)
        {
            var (behind, beside) = Behind(layout, i, aim);
            if (behind > 0 && behind < CueLength && Math.Abs(beside) < BallRadius + CueRadius(behind))
                blocks[count++] = Block.OfBall(behind, beside, i);
        }
        return Raised(stroke, blocks[..count], layout);
    }

    /// <summary>Something that the cue has to clear: an edge across its way, or a ball.</summary>
    /// <param name="Behind">How far behind the cue ball's centre, m.</param>
    /// <param name="Top">Of an edge, how high above the bed; of a ball, how far its centre lies beside the cue, m.</param>
    /// <param name="Straight">Of an edge, the cosine of the angle between the cue's way in plan and straight across it.</param>
    /// <param name="Slot">Of the ball; −1 for an edge.</param>
    private readonly record struct Block(double Behind, double Top, double Straight, int Slot)
    {
        public static Block Edge(double behind, double top, double straight) => new(behind, top, straight, -1);

        public static Block OfBall(double behind, double beside, int slot) => new(behind, beside, 1, slot);

        /// <summary>Whether a cue whose axis passes the cue ball's centre at a height clears it.</summary>
        /// <param name="height">Of the axis over the centre, at right angles to the axis, m.</param>
        public bool IsCleared(double height, double radians)
        {
            var (sin, cos) = Math.SinCos(radians);
            var above = BallRadius + height / cos + Behind * sin / cos - (Slot < 0 ? Top : BallRadius);
            var radius = CueRadius((Behind - BallRadius) / cos);
            if (Slot < 0)
                // The distance of two lines that cross: the axis, and the edge at an angle to it.
                return above * cos * Straight / Math.Sqrt(sin * sin + cos * cos * Straight * Straight) >= radius;
            var apart = BallRadius + radius;
            return above > 0 && above * cos * above * cos >= apart * apart - Top * Top;
        }
    }

    /// <summary>The least elevation that clears them all, and the ball that asks for it; docs/model.md, "Reach".</summary>
    private static (double Degrees, Ball? Over) Raised(in Stroke stroke, ReadOnlySpan<Block> blocks, Layout layout)
    {
        const double close = 0.005 * Math.PI / 180,
            most = Physics.Strike.MaxElevationDegrees * Math.PI / 180;
        var height = stroke.HeightTips * Tip.MillimetresPerTip / 1000;
        var (raised, over) = (0.0, -1);
        foreach (ref readonly var block in blocks)
        {
            if (block.IsCleared(height, raised))
                continue;
            var (low, high) = (raised, most);
            while (high - low > close)
            {
                var middle = (low + high) / 2;
                (low, high) = block.IsCleared(height, middle) ? (low, middle) : (middle, high);
            }
            (raised, over) = (high, block.Slot);
        }
        return (raised * 180 / Math.PI, over < 0 ? null : layout.Balls[over].Ball);
    }

    private static double CueRadius(double fromTip) => TipRadius + TaperPerMetre * Math.Max(0, fromTip);

    /// <summary>
    /// From a ball's centre along a direction to the line of the nose, m, and the cosine of the angle between that way and straight across
    /// the nose.
    /// </summary>
    private static (double Distance, double Straight) ToNose(Vec2 ball, Vec2 way)
    {
        var x =
            way.X > 0 ? (Length - ball.X) / way.X
            : way.X < 0 ? -ball.X / way.X
            : double.PositiveInfinity;
        var y =
            way.Y > 0 ? (Width - ball.Y) / way.Y
            : way.Y < 0 ? -ball.Y / way.Y
            : double.PositiveInfinity;
        return x < y ? (x, Math.Abs(way.X)) : (y, Math.Abs(way.Y));
    }
}
