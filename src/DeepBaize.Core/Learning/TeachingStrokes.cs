using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;
using MathNet.Numerics.LinearAlgebra;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Learning;

/// <summary>From where and to where a teaching stroke goes: places that are easy to find without measuring.</summary>
public enum TeachingLine
{
    /// <summary>White on the brown spot, straight up the table.</summary>
    AlongFromBrown,

    /// <summary>White on the yellow spot, straight across to the green's side.</summary>
    AcrossFromYellow,

    /// <summary>White on the green spot, straight across to the yellow's side.</summary>
    AcrossFromGreen,

    /// <summary>White on the black spot, straight down the table.</summary>
    BackFromBlack,

    /// <summary>White on the brown spot, at the middle pocket's far jaw on the green's side: off side, top and side cushions.</summary>
    RoundFromBrown,

    /// <summary>White on the brown spot, full at a red on the blue spot.</summary>
    FullOntoBlue,

    /// <summary>White on the yellow spot, at a red on the blue spot, half-ball.</summary>
    HalfOntoBlue,
}

/// <summary>A stroke that would tell much about the table.</summary>
/// <param name="Value">How well a typical shot would be known after it, m: the less, the better.</param>
public sealed record TeachingStroke(TeachingLine Line, Layout Layout, Stroke Stroke, double Value)
{
    /// <summary>Where the line of aim ends: at the ball, or where the white would meet the cushion.</summary>
    public Vec2 Towards
    {
        get
        {
            if (Layout.Balls.Count > 1)
                return Layout.Balls[1].At;
            var (from, along) = (Layout.White.At, Angle.FromDegrees(Stroke.AimDegrees).Unit);
            static double Until(double at, double by, double far) =>
                by > 1e-9 ? (far - BallRadius - at) / by
                : by < -1e-9 ? (BallRadius - at) / by
                : double.PositiveInfinity;
            return from + Math.Min(Until(from.X, along.X, Length), Until(from.Y, along.Y, Width)) * along;
        }
    }
}

/// <summary>
/// Chooses the strokes that teach most: those that are expected to narrow most how far off a typical shot's ends are predicted.
/// </summary>
public static class TeachingStrokes
{
    /// <summary>
    /// By how much more a stroke must tell if it is not plain, or needs a ball to be laid: the plain ball comes first.
    /// </summary>
    private const double PriceOfSpin = 0.06,
        PriceOfBall = 0.06;

    private const double NaturalElevation = 3;

    /// <summary>Returns the strokes that would tell most now, the best first.</summary>
    /// <param name="belief">What is believed of the table.</param>
    /// <param name="skill">Of who plays them.</param>
    /// <param name="doubt">With which ends are seen, m.</param>
    public static IReadOnlyList<TeachingStroke> Next(Belief belief, Skill skill, double doubt, Workers workers)
    {
        var shape = new TableShape(belief.Conditions);
        var typical = Typical(belief, shape, workers);
        var candidates = Candidates(shape).ToList();
        var prior = belief.Covariance.Inverse();
        var values = workers.InParallel(
            candidates.Count,
            i =>
            {
                var (line, layout, stroke) = candidates[i];
                var seen = Predicted(layout, stroke, doubt, shape);
                var after = (prior + TableFit.Information(seen, belief, skill)).Inverse();
                var price =
                    1 + (stroke.SideTips != 0 || stroke.HeightTips != 0 ? PriceOfSpin : 0) + (layout.Balls.Count > 1 ? PriceOfBall : 0);
                return new TeachingStroke(line, layout, stroke, typical.Average(slopes => OffOf(slopes, after)) * price);
            }
        );
        return [.. values.OrderBy(v => v.Value)];
    }

    /// <summary>How far off a typical shot's ends are predicted, m: the median of some shots, for a few hang on a hair.</summary>
    public static double Knowledge(Belief belief, Workers workers) =>
        MathNet.Numerics.Statistics.Statistics.Median(
            Typical(belief, new TableShape(belief.Conditions), workers).Select(slopes => OffOf(slopes, belief.Covariance))
        );

    private static double OffOf(Matrix<double> slopes, Matrix<double> covariance) =>
        Math.Sqrt((slopes * covariance * slopes.Transpose()).Trace());

    /// <summary>Slopes of the white's end by each figure, of shots as they are met in a break and in safety.</summary>
    private static List<Matrix<double>> Typical(Belief belief, TableShape shape, Workers workers)
    {
        var shots = new List<(Layout, Stroke)>();
        Vec2[] places = [new(0.9, 0.5), new(1.6, 1.3), new(2.6, 0.6), new(2.9, 1.2)];
        foreach (var (place, i) in places.Select((p, i) => (p, i)))
            foreach (var (pace, height) in new[] { (3.0, 0.0), (4.2, -0.6), (4.5, 0.6) })
            {
                var red = place + 0.7 * Angle.FromDegrees(37 + 80 * i).Unit;
                if (!shape.CanRest(red))
                    red = place - 0.7 * Angle.FromDegrees(37 + 80 * i).Unit;
                var layout = Layout.OfRest([new(Ball.White, place), new(Ball.Red(1), red)]);
                var aim = (red - place).Direction.Degrees + 2.1;
                shots.Add((layout, new(aim, i % 2 == 0 ? 0 : 0.4, height, pace, NaturalElevation)));
            }
        return workers.InParallel(shots.Count, i => TableFit.Slopes(Predicted(shots[i].Item1, shots[i].Item2, 0.01, shape), belief));
    }

    /// <summary>What would be seen of a stroke played as it is meant.</summary>
    public static ObservedStroke Predicted(Layout layout, in Stroke stroke, double doubt, TableShape shape)
    {
        var simulator = new Simulator(shape);
        stroke.Play(simulator, layout);
        var balls = Enumerable
            .Range(0, layout.Balls.Count)
            .Select(i => new SeenBall(i, simulator.At(i), simulator.PocketOf(i), simulator.IsOff(i)));
        return new(layout, stroke, new([.. balls], doubt));
    }

    private static IEnumerable<(TeachingLine, Layout, Stroke)> Candidates(TableShape shape)
    {
        Vec2 brown = new(BaulkLineX, Width / 2),
            yellow = new(BaulkLineX, Width / 2 - DRadius),
            green = new(BaulkLineX, Width / 2 + DRadius),
            blue = new(Length / 2, Width / 2),
            black = new(Length - BlackFromTopCushion, Width / 2);
        var lines = new (TeachingLine Line, Vec2 White, double Aim, Vec2? Red, double[] Paces, (double Side, double Height)[] Tips)[]
        {
            (TeachingLine.AlongFromBrown, brown, 0, null, [2, 3, 4, 5], [(0, 0), (0, 0.6)]),
            (TeachingLine.AcrossFromYellow, yellow, 90, null, [1.5, 2, 3], [(0, 0)]),
            (TeachingLine.AcrossFromGreen, green, -90, null, [1.5, 2, 3], [(0, 0)]),
            (TeachingLine.BackFromBlack, black, 180, null, [2, 3, 4], [(0, 0)]),
            (TeachingLine.RoundFromBrown, brown, 38, null, [3, 4, 5], [(0, 0), (0.8, 0), (-0.8, 0)]),
            (TeachingLine.FullOntoBlue, brown, 0, blue, [3, 4, 5], [(0, 0), (0, -0.8), (0, 0.8)]),
            (TeachingLine.HalfOntoBlue, yellow, HalfBallAim(yellow, blue), blue, [3, 4], [(0, 0), (0, -0.6)]),
        };
        foreach (var (line, white, aim, red, paces, tips) in lines)
        {
            var layout = Layout.OfRest(red is { } at ? [new(Ball.White, white), new(Ball.Red(1), at)] : [new(Ball.White, white)]);
            if (!shape.CanRest(white))
                continue;
            foreach (var pace in paces)
                foreach (var (side, height) in tips)
                    yield return (line, layout, new(aim, side, height, pace, NaturalElevation));
        }
    }

    /// <summary>The white's centre aimed at the ball's edge, on its right-hand side, degrees.</summary>
    private static double HalfBallAim(Vec2 white, Vec2 ball) =>
        (ball - white).Direction.Degrees - Math.Asin(BallRadius / (ball - white).Length) * 180 / Math.PI;
}
