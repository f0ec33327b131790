using DeepBaize.Core.Physics;
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
    public static double? Find(in PlacedBall cueBall, in PlacedBall objectBall, in Cut cut, Stroke stroke, TableShape shape)
    {
        var simulator = new Simulator(shape);
        var record = new ShotRecord();
        PlacedBall[] balls = [cueBall, objectBall];
        var wanted = cut;

        // How far the object ball's way lies to the left of the potting line, degrees; null if it is not hit, or does not get anywhere.
        double? Miss(double aim)
        {
            simulator.Place(balls);
            simulator.Play((stroke with { AimDegrees = aim }).ToStrike(), record);
            if (WayOf(record) is not { } way) return null;
            return Math.IEEERemainder(Math.Atan2(way.Y - balls[1].Y, way.X - balls[1].X) * 180 / Math.PI - wanted.PotDegrees, 360);
        }

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

    /// <summary>Where the object ball first meets anything, is potted or stops; null if the cue ball does not come to it directly.</summary>
    private static (double X, double Y)? WayOf(ShotRecord record)
    {
        var struck = false;
        foreach (var e in record.Events)
        {
            if (struck)
            {
                if (e.Ball == 1 && e.Kind != ShotEventKind.Roll) return (e.X, e.Y);
            }
            else if (e.Kind == ShotEventKind.Ball) struck = true;
            else if (e.Kind is ShotEventKind.Cushion or ShotEventKind.Jaw or ShotEventKind.Pot) return null;
        }
        return null;
    }
}
