using System.Collections.Concurrent;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Search;

/// <summary>What the stages of one search share: player, table, wishes, evaluation, workers and workspaces.</summary>
public sealed class SearchContext(Player player, TableShape shape, PlanPreferences preferences, FairGate gate, CancellationToken cancel)
{
    private readonly ConcurrentBag<Workspace> _workspaces = [];
    private long _examined;

    /// <summary>The player at the table.</summary>
    public Player Player { get; } = player;

    /// <summary>The table.</summary>
    public TableShape Shape { get; } = shape;

    /// <summary>What the player plays for, and how.</summary>
    public PlanPreferences Preferences { get; } = preferences;

    /// <summary>Evaluation of positions for this player.</summary>
    public Evaluation Evaluation { get; } = new(player, preferences);

    /// <summary>Cancels the search.</summary>
    public CancellationToken Cancel { get; } = cancel;

    /// <summary>The gate that all work of the search goes through.</summary>
    public FairGate Gate { get; } = gate;

    /// <summary>The workers of this search.</summary>
    public Workers Workers { get; } = new(gate, cancel);

    /// <summary>Number of positions examined so far.</summary>
    public long Examined => Interlocked.Read(ref _examined);

    /// <summary>
    /// Share of the work for an ordinary table that is done on this one, 0–1: less where balls run and meet so much longer that a search
    /// would take too long.
    /// </summary>
    public double TableShare { get; private set; } = 1;

    /// <summary>Share of the usual work that is done: <see cref="TableShare"/> times what the gate allows.</summary>
    public double WorkShare => TableShare * Gate.WorkShare;

    /// <summary>
    /// Sets <see cref="TableShare"/> by the number of events that some strokes from here take, compared with a table with default
    /// conditions. Counted, not timed, so that the same question has the same answer.
    /// </summary>
    public void Bound(Layout layout)
    {
        const double longer = 1.6;
        double here = EventsOf(Shape, layout),
            usual = EventsOf(new(Conditions.Default), layout);
        TableShare = here > longer * usual ? longer * usual / here : 1;
    }

    /// <summary>
    /// Returns a count reduced by the bound of the table, but not below <paramref name="least"/>; and by what the gate allows, but not
    /// below the few that every stage needs.
    /// </summary>
    public int Bounded(int usual, int least)
    {
        const int fewest = 4;
        var onTable = Math.Max(Math.Min(usual, least), (int)(usual * TableShare));
        return Math.Max(Math.Min(onTable, fewest), (int)(onTable * Gate.WorkShare));
    }

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

    /// <summary>Counts examined positions.</summary>
    public void Count(int positions = 1) => Interlocked.Add(ref _examined, positions);

    /// <summary>Does the jobs 0 … count − 1 in parallel, each with a workspace of its own; returns their results in order.</summary>
    public List<T> InParallel<T>(int count, Func<Workspace, int, T> job) =>
        Workers.InParallel(count, i => WithWorkspace(workspace => job(workspace, i)));

    private T WithWorkspace<T>(Func<Workspace, T> job)
    {
        var workspace = _workspaces.TryTake(out var free) ? free : new Workspace(this);
        try
        {
            return job(workspace);
        }
        finally
        {
            _workspaces.Add(workspace);
        }
    }
}
