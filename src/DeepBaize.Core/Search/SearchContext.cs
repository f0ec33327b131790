using System.Collections.Concurrent;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Strokes;
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

    /// <summary>Through which all its work goes.</summary>
    public FairGate Gate { get; } = gate;

    /// <summary>Of this search alone.</summary>
    public Workers Workers { get; } = new(gate, cancel);

    /// <summary>Positions looked at so far.</summary>
    public long Examined => Interlocked.Read(ref _examined);

    /// <summary>
    /// Of the work that is done on an ordinary table the share that is done on this one: less where balls run and meet so much longer that
    /// it would take too long.
    /// </summary>
    public double Share { get; private set; } = 1;

    /// <summary>
    /// Sets the bound on the work: by how many events some strokes from here take, against the same on a table with the usual conditions.
    /// Counted and not timed, so that the same question has the same answer.
    /// </summary>
    public void Bound(Layout layout)
    {
        const double longer = 1.6;
        double here = EventsOf(Shape, layout),
            usual = EventsOf(new(Conditions.Default), layout);
        Share = here > longer * usual ? longer * usual / here : 1;
    }

    /// <summary>So many, as far as the bound allows.</summary>
    public int Bounded(int usual, int least) => Math.Max(Math.Min(usual, least), (int)(usual * Share));

    private static int EventsOf(TableShape shape, Layout layout)
    {
        var (simulator, events) = (new Simulator(shape, Simulator.Coarse), 0);
        for (var k = 0; k < 12; k++)
        {
            new Stroke(30 * k + 7, 0, 0, 3 + k % 3 * 2, 0).Play(simulator, layout);
            events += simulator.EventCount;
        }
        return Math.Max(1, events);
    }

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
