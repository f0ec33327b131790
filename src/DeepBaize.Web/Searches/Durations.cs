using System.Collections.Concurrent;

namespace DeepBaize.Web.Searches;

/// <summary>About how long searches of each kind take: an average in which the newest weighs most.</summary>
internal sealed class Durations
{
    private const double NewestWeighs = 0.3;

    /// <summary>Before one of a kind has ended, s: as measured on two cores (docs/planning.md, docs/safety.md).</summary>
    private static readonly Dictionary<string, double> Measured = new()
    {
        ["plan"] = 4,
        ["decide"] = 1.5,
        ["ways"] = 1,
        ["openings"] = 10,
    };

    private readonly ConcurrentDictionary<string, double> _seconds = new(Measured);

    /// <summary>Returns the duration to be expected of a search, s.</summary>
    public double Of(string kind) => _seconds.GetValueOrDefault(kind, 1);

    /// <summary>Takes account of a search that has ended by itself.</summary>
    public void Took(string kind, double seconds) =>
        _seconds.AddOrUpdate(kind, seconds, (_, usual) => usual + NewestWeighs * (seconds - usual));
}
