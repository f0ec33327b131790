using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Shots;

public enum Hand { Right, Left }

/// <summary>Who stands at the table.</summary>
/// <param name="Height">m.</param>
public sealed record Player(Hand Hand, double Height)
{
    public const double Shortest = 1.2, Tallest = 2.2;

    public static Player Default { get; } = new(Hand.Right, 1.75);

    /// <exception cref="InputException">No such hand, or a height out of range.</exception>
    public static Player Create(string? hand, double height, string path = "player")
    {
        var errors = new List<InputError>();
        if (!Enum.TryParse<Hand>(hand, ignoreCase: true, out var which) || !Enum.IsDefined(which) || int.TryParse(hand, out _))
            errors.Add(new($"{path}.hand", "There is no such hand.", "right, left"));
        if (!(height is >= Shortest and <= Tallest)) errors.Add(new($"{path}.height", $"{height} is out of range.", $"{Shortest} to {Tallest} m"));
        InputException.ThrowIfAny(errors);
        return new(which, height);
    }
}

public enum Stance
{
    Natural,
    /// <summary>Leaning far out, the grip at the butt's end.</summary>
    Stretch,
    /// <summary>Only with the cue in the other hand.</summary>
    OtherHand,
    /// <summary>Only with a rest.</summary>
    Rest,
}

/// <summary>How a player gets at the cue ball, and what it costs. The figures are common practice, no source; see docs/model.md, "Reach".</summary>
/// <param name="ElevationDegrees">Least that the butt must be raised for the cue to clear rail and balls; 0 if it lies level, as players call it.</param>
/// <param name="Over">The ball that it must be raised over; null if that is a rail, or nothing.</param>
/// <param name="BridgeOver">A ball where the bridge hand would stand: it must bridge over it.</param>
/// <param name="ErrorFactor">By how much the errors of direction and tip grow; at least 1.</param>
public readonly record struct Reach(Stance Stance, double ElevationDegrees, Ball? Over, Ball? BridgeOver, double ErrorFactor)
{
    // Distances, m.
    private const double BridgeLength = 0.22, Rail = 0.11, BodyFromRail = 0.05, RailTop = 0.042, CueLength = 1.47, TipRadius = 0.00475, ButtRadius = 0.0145;

    // Of the player's height: from the hip at the table's edge to the bridge hand, and from the hip to the line of the cue beside it.
    private const double NaturalReach = 0.48, NaturalBeside = 0.32, StretchedReach = 0.62, StretchedBeside = 0.5;

    // Where the body can be else: little across the cue on the grip's side, and always behind the bridge, m.
    private const double AcrossTheCue = 0.15, BehindTheBridge = 0.25;

    // What a hand that bridges takes up behind the cue ball, m.
    private const double HandNear = 0.08, HandFar = 0.30, HandBeside = 0.045;

    private const double StretchFactor = 1.25, OtherHandFactor = 1.5, RestFactor = 1.5, BridgeOverFactor = 1.3;

    // Up to so much every cue is raised, and is called level; above it, every so many degrees add as much error again.
    private const double LevelDegrees = 5, DegreesPerFactor = 15;

    /// <param name="stroke">The aim counts, and the height of the tip: a high strike needs less raising.</param>
    public static Reach Of(Layout layout, in Stroke stroke, Player player)
    {
        var (dy, dx) = Math.SinCos(stroke.AimDegrees * Math.PI / 180);
        var (elevation, over) = Elevation(layout, stroke, dx, dy);
        var bridgeOver = Bridged(layout, dx, dy);
        var stance = StanceOf(layout.White, dx, dy, player);
        var factor = stance switch { Stance.Stretch => StretchFactor, Stance.OtherHand => OtherHandFactor, Stance.Rest => RestFactor, _ => 1 };
        if (bridgeOver is not null && stance != Stance.Rest) factor *= BridgeOverFactor;
        factor *= 1 + Math.Max(0, Math.Max(elevation, stroke.ElevationDegrees) - LevelDegrees) / DegreesPerFactor;
        return new(stance, elevation, over, bridgeOver, factor);
    }

    /// <summary>The elevation alone, degrees.</summary>
    public static double ElevationFor(Layout layout, in Stroke stroke)
    {
        var (dy, dx) = Math.SinCos(stroke.AimDegrees * Math.PI / 180);
        return Elevation(layout, stroke, dx, dy).Degrees;
    }

    private static Stance StanceOf(PlacedBall white, double dx, double dy, Player player)
    {
        var other = player.Hand == Hand.Right ? Hand.Left : Hand.Right;
        bool Natural(Hand hand) => CanStand(white, dx, dy, hand, NaturalReach * player.Height, NaturalBeside * player.Height);
        return Natural(player.Hand) ? Stance.Natural
            : CanStand(white, dx, dy, player.Hand, StretchedReach * player.Height, StretchedBeside * player.Height) ? Stance.Stretch
            : Natural(other) ? Stance.OtherHand
            : Stance.Rest;
    }

    /// <summary>Whether there is a place at the table's edge from which this hand bridges: no farther off and no farther beside the cue than this, m.</summary>
    private static bool CanStand(in PlacedBall white, double dx, double dy, Hand hand, double reach, double most)
    {
        var (bx, by) = (white.X - BridgeLength * dx, white.Y - BridgeLength * dy);
        // A right-hander's body is to the left of the cue.
        var side = hand == Hand.Right ? 1 : -1;
        const double beyond = Rail + BodyFromRail;
        const int alongSide = 96, alongEnd = 52;
        bool At(double x, double y)
        {
            var (px, py) = (x - bx, y - by);
            var behind = -(px * dx + py * dy);
            var beside = side * (py * dx - px * dy);
            return behind >= BehindTheBridge && beside >= -AcrossTheCue && beside <= most && px * px + py * py <= reach * reach;
        }
        for (var i = 0; i <= alongSide; i++)
        {
            var x = -beyond + (Length + 2 * beyond) * i / alongSide;
            if (At(x, -beyond) || At(x, Width + beyond)) return true;
        }
        for (var i = 0; i <= alongEnd; i++)
        {
            var y = -beyond + (Width + 2 * beyond) * i / alongEnd;
            if (At(-beyond, y) || At(Length + beyond, y)) return true;
        }
        return false;
    }

    private static Ball? Bridged(Layout layout, double dx, double dy)
    {
        for (var i = 1; i < layout.Balls.Count; i++)
        {
            var (behind, beside) = Behind(layout, i, dx, dy);
            if (behind is > HandNear and < HandFar && Math.Abs(beside) < HandBeside + BallRadius) return layout.Balls[i].Ball;
        }
        return null;
    }

    /// <summary>Where a ball lies from the cue ball: behind it along the cue, and to the left.</summary>
    private static (double Behind, double Beside) Behind(Layout layout, int slot, double dx, double dy)
    {
        var (px, py) = (layout.Balls[slot].X - layout.White.X, layout.Balls[slot].Y - layout.White.Y);
        return (-(px * dx + py * dy), py * dx - px * dy);
    }

    private static (double Degrees, Ball? Over) Elevation(Layout layout, in Stroke stroke, double dx, double dy)
    {
        const double step = 0.5;
        // What stands in the cue's way: how far behind the cue ball's centre, how high, and of which ball.
        Span<(double Behind, double Top, int Slot)> blocks = stackalloc (double, double, int)[3 * Ball.Count];
        var count = 0;
        blocks[count++] = (ToNose(layout.White, -dx, -dy), RailTop, -1);
        for (var i = 1; i < layout.Balls.Count; i++)
        {
            var (behind, beside) = Behind(layout, i, dx, dy);
            if (behind <= 0 || behind >= CueLength) continue;
            var clear = Math.Max(0, Math.Abs(beside) - CueRadius(behind));
            if (clear >= BallRadius) continue;
            foreach (var along in (ReadOnlySpan<double>)[-0.6, 0, 0.6])
            {
                var rise = BallRadius * BallRadius * (1 - along * along) - clear * clear;
                if (rise > 0) blocks[count++] = (behind + along * BallRadius, BallRadius + Math.Sqrt(rise), i);
            }
        }
        var (a, b) = (Tip.Fraction(stroke.SideTips), Tip.Fraction(stroke.HeightTips));
        var forward = Math.Sqrt(Math.Max(0, 1 - a * a - b * b));
        var last = -1;
        for (var degrees = 0.0; degrees <= Physics.Strike.MaxElevationDegrees; degrees += step)
        {
            // Where the tip touches, from the cue ball's centre, and from there the axis of the cue.
            var (sin, cos) = Math.SinCos(degrees * Math.PI / 180);
            var (x, z) = (BallRadius * (b * sin - forward * cos), BallRadius * (1 + b * cos + forward * sin));
            var blocked = -2;
            for (var k = 0; k < count; k++)
            {
                var run = blocks[k].Behind + x;
                if (run < -1e-9) continue;
                if (z + run * sin / cos - CueRadius(run) / cos >= blocks[k].Top) continue;
                blocked = blocks[k].Slot;
                break;
            }
            if (blocked == -2) return degrees <= LevelDegrees ? (0, null) : (degrees, last < 0 ? null : layout.Balls[last].Ball);
            last = blocked;
        }
        return (Physics.Strike.MaxElevationDegrees, last < 0 ? null : layout.Balls[last].Ball);
    }

    private static double CueRadius(double fromTip) => TipRadius + (ButtRadius - TipRadius) * Math.Min(1, fromTip / CueLength);

    /// <summary>From a ball's centre along a direction to the nose, m.</summary>
    private static double ToNose(in PlacedBall ball, double dx, double dy)
    {
        var x = dx > 0 ? (Length - ball.X) / dx : dx < 0 ? -ball.X / dx : double.PositiveInfinity;
        var y = dy > 0 ? (Width - ball.Y) / dy : dy < 0 ? -ball.Y / dy : double.PositiveInfinity;
        return Math.Min(x, y);
    }
}
