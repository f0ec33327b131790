using DeepBaize.Core.Table;

namespace DeepBaize.Core.Camera;

/// <summary>Where a ball was seen at a time.</summary>
internal readonly record struct Seen(double Time, Vec2 At);

/// <summary>One ball followed from picture to picture.</summary>
internal sealed class BallTrack(Ball ball)
{
    /// <summary>A ball is taken to go on as it went for so long without being seen, s.</summary>
    private const double GoesOnFor = 0.3;

    /// <summary>Slower than this its direction is nothing but noise, m/s.</summary>
    private const double Slowest = 0.5;

    /// <summary>A sighting so far from where the ball lies is of another one, m.</summary>
    private const double Stray = 0.025;

    /// <summary>However well it is seen, less than this is not called moved, m: a cloth gives.</summary>
    private const double LeastMove = 0.006;

    /// <summary>A ball that seems to go slower is at rest, m/s: so slow it rolls half a millimetre on, and noise shows as much.</summary>
    private const double SlowestSeen = 0.012;
    private const int FewestAtRest = 12,
        FewestInHalf = 5,
        MostStrays = 2;

    public Ball Ball { get; } = ball;
    public List<Seen> History { get; } = [];

    /// <summary>Where it lay when the table was last still; null if it has not lain still yet.</summary>
    public Vec2? Rest { get; set; }

    /// <summary>Where it lay when the table was still the time before; null if it was not there.</summary>
    public Vec2? Was { get; set; }

    public Seen Last => History[^1];

    /// <summary>Standard deviation of each coordinate, as the camera says, m.</summary>
    public double Doubt { get; private set; }

    /// <summary>A ball seen so far from its place twice running has left it, m: chance does that once in ten million times.</summary>
    public double Moved => Math.Max(LeastMove, 4.5 * Doubt);

    /// <summary>How often running it was taken for another ball.</summary>
    public int Mistaken { get; private set; }

    public void Add(in Sighting sighting)
    {
        Mistaken = sighting.Ball == Ball || (sighting.Ball.IsRed && Ball.IsRed) ? 0 : Mistaken + 1;
        History.Add(new(sighting.Time, sighting.At));
        Doubt = Math.Max(sighting.Doubt, Doubt);
    }

    /// <summary>Forgets what was before a time.</summary>
    public void Forget(double before)
    {
        var first = History.FindIndex(s => s.Time >= before);
        if (first > 0)
            History.RemoveRange(0, Math.Min(first, History.Count - 1));
    }

    /// <summary>Where it should be at a time, if it goes on as it went.</summary>
    public Vec2 At(double time)
    {
        if (History.Count < 3)
            return Last.At;
        var (a, b) = (History[^3], Last);
        var velocity = (b.At - a.At) / (b.Time - a.Time);
        return velocity.Length < Slowest ? b.At : b.At + Math.Min(time - b.Time, GoesOnFor) * velocity;
    }

    /// <summary>Where it lies at rest, by what was seen of it lately; null if it moves, or was seen too seldom to tell.</summary>
    public Vec2? RestAt(double now)
    {
        List<Seen> lately = [.. Enumerable.Reverse(History).TakeWhile(s => s.Time >= now - TableWatch.StillFor)];
        if (lately.Count < FewestAtRest)
            return null;
        var middle = new Vec2(Median(lately.Select(s => s.At.X)), Median(lately.Select(s => s.At.Y)));
        List<Seen> own = [.. lately.Where(s => s.At.DistanceTo(middle) < Stray)];
        List<Seen> late = [.. own.Where(s => s.Time >= now - TableWatch.StillFor / 2)],
            early = [.. own.Where(s => s.Time < now - TableWatch.StillFor / 2)];
        // Of the newest all but one must lie there: a ball that has just left has lain there long enough.
        if (late.Count < FewestInHalf || early.Count < FewestInHalf || own.Count < FewestAtRest || own.Count < lately.Count - MostStrays)
            return null;
        if (lately.Take(3).Count(s => s.At.DistanceTo(middle) < Stray) < 2)
            return null;
        // The later half alone: in the earlier one it may still have crept on.
        var apart = late.Average(s => s.Time) - early.Average(s => s.Time);
        return apart > TableWatch.StillFor / 4 && Mean(late).DistanceTo(Mean(early)) < SlowestSeen * apart ? Mean(late) : null;
    }

    /// <summary>Whether its last two sightings lie off its place, both in one direction.</summary>
    public bool HasLeft()
    {
        if (Rest is not { } rest || History.Count < 2)
            return false;
        var (one, two) = (History[^2].At - rest, Last.At - rest);
        return one.Length > Moved && two.Length > Moved && one.Dot(two) > 0;
    }

    private static Vec2 Mean(List<Seen> seen) => new(seen.Average(s => s.At.X), seen.Average(s => s.At.Y));

    private static double Median(IEnumerable<double> values)
    {
        double[] sorted = [.. values.Order()];
        return sorted[sorted.Length / 2];
    }
}
