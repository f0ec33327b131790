using DeepBaize.Core.Physics;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Shots;

/// <summary>Plays strokes at one pot, other balls taken as out of the way, and tells where the object ball goes. One instance serves one thread.</summary>
public sealed class PotTrial(PlacedBall cueBall, PlacedBall objectBall, Cut cut, TableShape shape)
{
    private readonly Simulator _simulator = new(shape);
    private readonly PlacedBall[] _balls = [cueBall, objectBall];

    /// <summary>What the last stroke did.</summary>
    public ShotRecord Record { get; } = new();

    /// <summary>How far the object ball's way lies to the left of the potting line, degrees; null if it is not hit directly.</summary>
    public double? Miss(in Stroke stroke, double sideError = 0, double heightError = 0)
    {
        _simulator.Place(_balls);
        _simulator.Release([(0, stroke.ToStrike().Launch(shape.Conditions, sideError, heightError))], Record);
        if (Way() is not { } way) return null;
        return Math.IEEERemainder(Math.Atan2(way.Y - objectBall.Y, way.X - objectBall.X) * 180 / Math.PI - cut.PotDegrees, 360);
    }

    /// <summary>Where the object ball first meets anything, is potted or stops; null if the cue ball does not come to it directly.</summary>
    private (double X, double Y)? Way()
    {
        var struck = false;
        foreach (var e in Record.Events)
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
