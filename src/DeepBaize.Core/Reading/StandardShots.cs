using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Reading;

/// <summary>A pot set up to be talked about: how often a player brings it off says what he is.</summary>
/// <param name="Stroke">Aimed.</param>
public sealed record StandardShot(Layout Layout, Cut Pot, Stroke Stroke);

/// <summary>Sets up pots by distances and angles, as coaches name them. The butt lies as it does for the default player.</summary>
public static class StandardShots
{
    /// <summary>A red into the yellow's corner pocket.</summary>
    /// <param name="degrees">Of its way to the side cushion.</param>
    /// <param name="toPocket">From the corner, m.</param>
    /// <param name="toRed">From the white, centre to centre, m.</param>
    /// <param name="cut">Degrees; + turns the red to the left.</param>
    public static StandardShot Red(TableShape shape, double degrees, double toPocket, double toRed, double cut, double pace) =>
        Of(shape, new(Ball.Red(1), toPocket * Angle.FromDegrees(degrees).Unit), Pocket.Yellow, (toRed, cut), new(0, 0, 0, pace, 0));

    /// <summary>The black off its spot, half-ball, into a top pocket.</summary>
    /// <param name="side">Tips, + helping.</param>
    public static StandardShot Black(TableShape shape, double toBlack, double side, double pace) =>
        Of(shape, new(Ball.Black, Spot(Ball.Black)), Pocket.YellowTop, (toBlack, -30), new(0, -side, 0, pace, 0));

    /// <summary>A long red in the open: the white 2.5 m away or as far as is asked, 0.7 m on to a corner, cut by 20°, pace 4.5.</summary>
    /// <param name="toRed">From the white, centre to centre, m.</param>
    public static StandardShot OpenRed(TableShape shape, double toRed = 2.5) => Red(shape, 30, 0.7, toRed, 20, 4.5);

    /// <summary>
    /// A double: the red 100 mm off a side cushion, 1.7 m on into the middle pocket opposite, the white half a metre away, at pace 4.
    /// </summary>
    /// <param name="cut">Degrees.</param>
    public static StandardShot Double(TableShape shape, double cut = 30)
    {
        const double off = 0.1,
            before = 0.42,
            away = 0.5;
        var ball = new PlacedBall(Ball.Red(1), Length / 2 - before, off);
        var pot = new Pot(1, Pocket.GreenMiddle, Off: Cushion.YellowSide);
        // The line of the red does not depend on where the white is.
        var line = Cut.Of(Layout.OfRest([new(Ball.White, Length / 4, Width / 2), ball]), pot, shape);
        var white = WhiteFor(line.Ghost, Angle.FromDegrees(line.PotDegrees), (away, cut));
        var layout = Layout.OfRest([new(Ball.White, white), ball]);
        return Aimed(shape, layout, Cut.Of(layout, pot, shape), new(0, 0, 0, 4, 0));
    }

    /// <param name="white">How far the white is from the ball, centre to centre, m, and the cut, degrees.</param>
    /// <param name="stroke">Tip and pace; aim and butt are found.</param>
    public static StandardShot Of(TableShape shape, PlacedBall ball, Pocket pocket, (double Distance, double Cut) white, Stroke stroke)
    {
        var (direction, _, _) = PotWindow.Into(shape, pocket, ball.At);
        var ghost = ball.At - 2 * BallRadius * direction.Unit;
        var layout = Layout.OfRest([new(Ball.White, WhiteFor(ghost, direction, white)), ball]);
        return Aimed(shape, layout, Cut.Of(layout, new(1, pocket), shape), stroke);
    }

    /// <summary>Where the white lies: behind the ghost ball, on a line that the cut turns off the potting line.</summary>
    private static Vec2 WhiteFor(Vec2 ghost, Angle direction, (double Distance, double Cut) white)
    {
        var back = -(direction - Angle.FromDegrees(white.Cut)).Unit;
        var (sin, cos) = Math.SinCos(white.Cut * Math.PI / 180);
        var along = Math.Sqrt(white.Distance * white.Distance - 4 * BallRadius * BallRadius * sin * sin) - 2 * BallRadius * cos;
        return ghost + along * back;
    }

    private static StandardShot Aimed(TableShape shape, Layout layout, in Cut pot, Stroke stroke)
    {
        stroke = stroke with { AimDegrees = pot.AimDegrees };
        if (stroke.HeightTips == 0)
            stroke = stroke with { HeightTips = Reach.PlainHeightFor(layout, stroke) };
        stroke = stroke with { ElevationDegrees = Reach.ButtFor(layout, stroke, Player.Default) };
        return new(layout, pot, stroke with { AimDegrees = PotAim.Find(layout, pot, stroke, shape)!.Value });
    }

    /// <summary>The half-ball black from 0.4 m with plain ball, at the pace at which the white runs so far after it.</summary>
    /// <returns>With where it stops, m, and how many cushions it meets.</returns>
    public static (StandardShot Shot, Vec2 StopsAt, int Cushions) Running(TableShape shape, double metres)
    {
        const double softest = 0.3,
            hardest = 6;
        var (simulator, record) = (new Simulator(shape), new ShotRecord());
        double RunOf(StandardShot shot)
        {
            shot.Stroke.Play(simulator, shot.Layout, record);
            var hit = Contacts.First(record)!.Value.Time - 1e-9;
            return record.Pieces.Where(p => p.Ball == 0 && p.Start >= hit).Sum(p => p.From.DistanceTo(p.To));
        }
        var shot = Black(shape, 0.4, 0, Pace.OfCueSpeed(softest));
        // The harder, the farther: close in on the speed.
        for (var (slow, fast, i) = (softest, hardest, 0); i < 24; i++)
        {
            var speed = (slow + fast) / 2;
            shot = Black(shape, 0.4, 0, Pace.OfCueSpeed(speed));
            (slow, fast) = RunOf(shot) < metres ? (speed, fast) : (slow, speed);
        }
        return (shot, simulator.At(0), record.Events.Count(e => e is { Kind: ShotEventKind.Cushion, Ball: 0 }));
    }
}
