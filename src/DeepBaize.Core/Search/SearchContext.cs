using System.Collections.Concurrent;
using DeepBaize.Core.Players;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Search;

/// <summary>Everything that the pieces of one search share: who plays on what table for what, and the workers.</summary>
public sealed class SearchContext(Player player, TableShape shape, PlanPreferences preferences, FairGate gate, CancellationToken cancel)
{
    private readonly ConcurrentBag<Bench> _benches = [];
    private long _examined;

    public Player Player { get; } = player;
    public TableShape Shape { get; } = shape;
    public PlanPreferences Preferences { get; } = preferences;
    public Worth Worth { get; } = new(player, preferences);
    public CancellationToken Cancel { get; } = cancel;

    /// <summary>Of this search alone.</summary>
    public Workers Workers { get; } = new(gate, cancel);

    /// <summary>Positions looked at so far.</summary>
    public long Examined => Interlocked.Read(ref _examined);

    public void Count() => Interlocked.Increment(ref _examined);

    public List<T> InParallel<T>(int count, Func<Bench, int, T> job)
    {
        return Workers.InParallel(count, i => WithBench(bench => job(bench, i)));
    }

    private T WithBench<T>(Func<Bench, T> job)
    {
        var bench = _benches.TryTake(out var free) ? free : new Bench(this);
        try
        {
            return job(bench);
        }
        finally
        {
            _benches.Add(bench);
        }
    }
}
