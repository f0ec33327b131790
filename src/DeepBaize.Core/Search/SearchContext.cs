using System.Collections.Concurrent;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Search;

/// <summary>Who asks what a search answers.</summary>
/// <param name="Frame">In which the question is asked.</param>
/// <param name="Rival">The other player; null: one of the same skill.</param>
public sealed record SearchQuestion(Frame Frame, Player Player, TableShape Shape, PlanPreferences Preferences, Player? Rival = null)
{
    /// <summary>The place in the frame of the player who asks, 0 or 1: the one at the table, if not said otherwise.</summary>
    public int Me { get; init; } = Frame.Turn;
}

/// <summary>What the stages of one search share: player, table, wishes, the measure, the judge, workers and workspaces.</summary>
public sealed class SearchContext
{
    private readonly ConcurrentBag<Workspace> _workspaces = [];
    private long _examined;
    private Layout? _root;

    /// <summary>Creates what the stages share.</summary>
    public SearchContext(SearchQuestion question, FairGate gate, CancellationToken cancel)
    {
        var (frame, player, shape, preferences, rival) = question;
        (Player, Rival, Shape, Preferences, Gate, Cancel) = (player, rival ?? player, shape, preferences, gate, cancel);
        Objective = Objectives.For(frame, question.Me, player, Rival, preferences);
        Judge = new(question.Me, player, Rival, shape, preferences);
        Evaluation = new(player, preferences);
        Workers = new(gate, cancel);
    }

    /// <summary>The player who asks.</summary>
    public Player Player { get; }

    /// <summary>The other player.</summary>
    public Player Rival { get; }

    /// <summary>The measure of the answer.</summary>
    public IObjective Objective { get; }

    /// <summary>Judges tables for either player.</summary>
    public PositionJudge Judge { get; }

    /// <summary>
    /// By how much more than it costs a miss is minded when strokes are ranked, in the measure of the answer. Common practice, no source.
    /// </summary>
    public double MissMinded =>
        Preferences.Risk switch
        {
            Risk.Careful => 4,
            Risk.Balanced => 0,
            _ => -2,
        } * Objective.Point;

    /// <summary>The table.</summary>
    public TableShape Shape { get; }

    /// <summary>What the player plays for, and how.</summary>
    public PlanPreferences Preferences { get; }

    /// <summary>Evaluation of positions for this player.</summary>
    public Evaluation Evaluation { get; }

    /// <summary>Cancels the search.</summary>
    public CancellationToken Cancel { get; }

    /// <summary>The gate that all work of the search goes through.</summary>
    public FairGate Gate { get; }

    /// <summary>The workers of this search.</summary>
    public Workers Workers { get; }

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
    /// Begins the search from a layout: sets <see cref="TableShare"/> by the number of events that some strokes from here
    /// take, compared with a table with default conditions. Counted, not timed, so that the same question has the same answer.
    /// </summary>
    public void Bound(Layout layout)
    {
        _root = layout;
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

    /// <summary>Whether a layout is that of the question.</summary>
    public bool IsRoot(Layout layout) => ReferenceEquals(layout, _root);

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
