namespace DeepBaize.Core.Learning;

/// <summary>What a cue's motion was measured as.</summary>
public enum CueMeasure
{
    /// <summary>How far the cue has come along its own line, m, forward positive.</summary>
    Travel,

    /// <summary>Its acceleration along that line, m/s², forward positive.</summary>
    Acceleration,
}

/// <summary>One reading.</summary>
/// <param name="Time">s.</param>
/// <param name="Value">m or m/s².</param>
public readonly record struct CueSample(double Time, double Value);

/// <summary>A stroke of the cue as a sensor or a film measured it. Built by <see cref="Create"/> only.</summary>
public sealed record CueMotion
{
    /// <summary>Fewest and most readings of a stroke.</summary>
    public const int FewestSamples = 8,
        MostSamples = 10_000;

    /// <summary>Longest stroke, s; farthest travel, m; greatest acceleration, m/s²: a knock on the butt.</summary>
    public const double LongestSeconds = 30,
        FarthestTravel = 2,
        GreatestAcceleration = 5000;

    private CueMotion(CueMeasure measure, IReadOnlyList<CueSample> samples, double? contact)
    {
        (Measure, Samples, Contact) = (measure, samples, contact);
        List<double> steps = [.. samples.Zip(samples.Skip(1), (a, b) => b.Time - a.Time).Order()];
        (Step, ShortestStep) = (steps[(steps.Count - 1) / 2], steps[0]);
    }

    /// <summary>What was measured.</summary>
    public CueMeasure Measure { get; }

    /// <summary>In the order of time.</summary>
    public IReadOnlyList<CueSample> Samples { get; }

    /// <summary>When the tip met the ball, if somebody saw it, s; null: it is looked for.</summary>
    public double? Contact { get; }

    /// <summary>Time between two readings, s: the middle one of all.</summary>
    public double Step { get; }

    /// <summary>Shortest time between two readings, s: of a film, one picture, if two that follow one another were read.</summary>
    public double ShortestStep { get; }

    /// <exception cref="InputException">Too few or many readings, times that do not rise, or figures out of range.</exception>
    public static CueMotion Create(CueMeasure measure, IReadOnlyList<CueSample> samples, double? contact = null, string path = "samples")
    {
        if (samples.Count is < FewestSamples or > MostSamples)
            throw new InputException(path, $"There are {samples.Count} readings.", $"{FewestSamples} to {MostSamples}");
        var checks = new Checks();
        var (far, unit) = measure == CueMeasure.Travel ? (FarthestTravel, " m") : (GreatestAcceleration, " m/s²");
        for (var i = 0; i < samples.Count; i++)
        {
            checks.Range($"{path}[{i}].time", samples[i].Time, -1e9, 1e10, " s");
            checks.Range($"{path}[{i}].value", samples[i].Value, -far, far, unit);
            if (i > 0)
                checks.That(
                    samples[i].Time > samples[i - 1].Time,
                    $"{path}[{i}].time",
                    "It is not later than the one before.",
                    "rising times"
                );
        }
        checks.ThrowIfAny();
        var (from, to) = (samples[0].Time, samples[^1].Time);
        checks.That(to - from <= LongestSeconds, path, $"They last {to - from:0.#} s.", $"at most {LongestSeconds} s: one stroke");
        if (contact is { } at)
            checks.Range("contact", at, from, to, " s");
        checks.ThrowIfAny();
        // From the first reading on: a clock that counts seconds since long ago leaves no digits for milliseconds.
        return new(measure, [.. samples.Select(s => new CueSample(s.Time - from, s.Value))], contact - from);
    }
}
