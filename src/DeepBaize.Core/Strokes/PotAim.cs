using DeepBaize.Core.Advice.Decide;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Strokes;

/// <summary>
/// The aim that sends the object ball along the potting line, with squirt, swerve and throw allowed for: found by playing the stroke.
/// </summary>
public static class PotAim
{
    private const double Accuracy = 1e-4;
    private const int MaxTries = 25,
        MaxSecants = 5;

    /// <summary>Good enough where strokes are only compared: far below any player's error, degrees of the object ball's way.</summary>
    public const double Roughly = 0.01;

    /// <summary>The direction of the cue, degrees. Other balls are taken as out of the way.</summary>
    /// <param name="stroke">Everything but the aim.</param>
    /// <returns>Null if no aim near the ghost ball's does it with this stroke, as when the cue ball stops short.</returns>
    public static double? Find(Layout layout, in Cut cut, Stroke stroke, TableShape shape) =>
        Find(new PotTrial(layout, cut, shape), cut, stroke);

    /// <summary>The same for a direct pot.</summary>
    public static double? Find(in PlacedBall cueBall, in PlacedBall objectBall, in Cut cut, Stroke stroke, TableShape shape) =>
        Find(new PotTrial(cueBall, objectBall, cut, shape), cut, stroke);

    /// <summary>The same with a trial that is at hand.</summary>
    /// <param name="near">An aim that is about right, degrees; by default the ghost ball's.</param>
    /// <param name="accuracy">Of the object ball's way, degrees.</param>
    public static double? Find(PotTrial trial, in Cut cut, Stroke stroke, double? near = null, double accuracy = Accuracy)
    {
        if (cut.Fault == CutFault.OffJaw || cut.Kind == PotKind.Set || cut.IsAlongCushion)
            return Best(trial, cut, stroke);
        double? Miss(double aim) => trial.Miss(stroke with { AimDegrees = aim });

        // The object ball turns to the left as the aim goes to the right. Widen until two aims stand on either side, then close in.
        var from = near ?? cut.AimDegrees;
        var miss = Miss(from);
        if (miss is { } exact && Math.Abs(exact) < accuracy)
            return from;
        if (miss is { } off && Secant(Miss, from, off, PerAim(cut), accuracy) is { } found)
            return found;
        var (right, left, missRight, missLeft) = (from, from, miss, miss);
        for (var step = 0.05; step < 8 && !(missRight > 0 && missLeft < 0); step *= 1.5)
        {
            if (!(missRight > 0) && Miss(from - step) is { } r)
                (right, missRight) = (from - step, r);
            if (!(missLeft < 0) && Miss(from + step) is { } l)
                (left, missLeft) = (from + step, l);
        }
        if (!(missRight > 0 && missLeft < 0))
            return null;
        for (var i = 0; i < MaxTries; i++)
        {
            // Regula falsi, but halving every third time so that a curved function cannot stall it.
            var share = i % 3 == 2 ? 0.5 : missRight.Value / (missRight.Value - missLeft.Value);
            var aim = right + share * (left - right);
            if (Miss(aim) is not { } missed)
                return null;
            if (Math.Abs(missed) < accuracy)
                return aim;
            if (missed > 0)
                (right, missRight) = (aim, missed);
            else
                (left, missLeft) = (aim, missed);
        }
        return (right + left) / 2;
    }

    /// <summary>From an aim that is nearly right a few steps along the slope are enough; null if they do not lead there.</summary>
    private static double? Secant(Func<double, double?> missOf, double aim, double miss, double perDegree, double accuracy)
    {
        for (var i = 0; i < MaxSecants; i++)
        {
            var next = aim + miss * perDegree;
            if (Math.Abs(next - aim) > 2 || missOf(next) is not { } now)
                return null;
            if (Math.Abs(now) < accuracy)
                return next;
            if (Math.Abs(now) >= Math.Abs(miss))
                return null;
            perDegree = (next - aim) / (miss - now);
            (aim, miss) = (next, now);
        }
        return null;
    }

    /// <summary>
    /// Where no line is clear, or the line hardly depends on the aim: the middle of the widest run of aims that pot, tried one by one; null
    /// if none does.
    /// </summary>
    private static double? Best(PotTrial trial, in Cut cut, Stroke stroke)
    {
        // Aims over as much as turns the ball by a few degrees; balls that touch hardly turn, so there over all that strikes the ball
        // about.
        var (span, tries) =
            cut.Kind == PotKind.Set ? (Math.Min(8, 40 * 2 * Dimensions.BallRadius / cut.CueBallDistance), 121) : (4 * PerAim(cut), 81);
        var step = 2 * span / (tries - 1);
        var (first, best, bestFirst) = (-1, 0, 0);
        for (var i = 0; i <= tries; i++)
        {
            var pots = i < tries && trial.Pots(stroke with { AimDegrees = cut.AimDegrees - span + i * step });
            if (pots && first < 0)
                first = i;
            if (pots || first < 0)
                continue;
            if (i - first > best)
                (best, bestFirst) = (i - first, first);
            first = -1;
        }
        return best == 0 ? null : cut.AimDegrees - span + (bestFirst + (best - 1) / 2.0) * step;
    }

    /// <summary>Degrees of aim for a degree of the object ball: plain geometry.</summary>
    internal static double PerAim(in Cut cut) =>
        2 * Dimensions.BallRadius * Math.Cos(cut.CutDegrees * Math.PI / 180) / Math.Max(cut.CueBallDistance, 2 * Dimensions.BallRadius);
}
