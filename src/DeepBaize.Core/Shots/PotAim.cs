using DeepBaize.Core.Table;

namespace DeepBaize.Core.Shots;

/// <summary>The aim that sends the object ball along the potting line, with squirt, swerve and throw allowed for: found by playing the stroke.</summary>
public static class PotAim
{
    private const double Accuracy = 1e-4;
    private const int MaxTries = 25;

    /// <summary>The direction of the cue, degrees. Other balls are taken as out of the way.</summary>
    /// <param name="stroke">Everything but the aim.</param>
    /// <returns>Null if no aim near the ghost ball's does it with this stroke, as when the cue ball stops short.</returns>
    public static double? Find(in PlacedBall cueBall, in PlacedBall objectBall, in Cut cut, Stroke stroke, TableShape shape) =>
        Find(new PotTrial(cueBall, objectBall, cut, shape), cut, stroke);

    /// <summary>The same with a trial that is at hand.</summary>
    public static double? Find(PotTrial trial, in Cut cut, Stroke stroke)
    {
        double? Miss(double aim) => trial.Miss(stroke with { AimDegrees = aim });

        // The object ball turns to the left as the aim goes to the right. Widen until two aims stand on either side, then close in.
        var (right, left) = (cut.AimDegrees, cut.AimDegrees);
        var (missRight, missLeft) = (Miss(right), Miss(left));
        for (var step = 0.05; step < 8 && !(missRight > 0 && missLeft < 0); step *= 1.5)
        {
            if (!(missRight > 0) && Miss(cut.AimDegrees - step) is { } r) (right, missRight) = (cut.AimDegrees - step, r);
            if (!(missLeft < 0) && Miss(cut.AimDegrees + step) is { } l) (left, missLeft) = (cut.AimDegrees + step, l);
        }
        if (!(missRight > 0 && missLeft < 0)) return null;
        for (var i = 0; i < MaxTries; i++)
        {
            // Regula falsi, but halving every third time so that a curved function cannot stall it.
            var share = i % 3 == 2 ? 0.5 : missRight.Value / (missRight.Value - missLeft.Value);
            var aim = right + share * (left - right);
            if (Miss(aim) is not { } miss) return null;
            if (Math.Abs(miss) < Accuracy) return aim;
            if (miss > 0) (right, missRight) = (aim, miss);
            else (left, missLeft) = (aim, miss);
        }
        return (right + left) / 2;
    }
}
