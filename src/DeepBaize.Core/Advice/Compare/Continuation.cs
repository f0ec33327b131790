using System.Collections.Concurrent;
using DeepBaize.Core.Play;
using DeepBaize.Core.Search;
using DeepBaize.Core.Valuing;

namespace DeepBaize.Core.Advice.Compare;

/// <summary>
/// Carries a table on by a stroke of whoever is at it: the better of the pot that a small search finds and of turning to safety, each
/// player by their own skill.
/// </summary>
internal sealed class Continuation
{
    private readonly SearchContext _mine,
        _theirs;
    private readonly ShotSearch _own,
        _rival;
    private readonly int _me;
    private readonly ConcurrentBag<Workspace> _workspaces = [];

    /// <summary>Creates the searches of both players.</summary>
    /// <param name="mine">Context of the player who asks.</param>
    /// <param name="from">The table of the question.</param>
    public Continuation(SearchContext mine, Situation from)
    {
        _me = from.Frame.Turn;
        _mine = mine;
        var rival = new SearchQuestion(from.Frame, mine.Rival, mine.Shape, PlanPreferences.Default, mine.Player) { Me = 1 - _me };
        _theirs = new(rival, mine.Gate, mine.Cancel);
        (_own, _rival) = (new(mine), new(_theirs));
    }

    /// <summary>Value of a table for the player who asks, and the chance of the pot that the player at it would play (0: none).</summary>
    /// <param name="workspace">Of the context of the player who asks.</param>
    public (double Value, double Chance) Of(Workspace workspace, Situation leaves)
    {
        var value = workspace.ValueOf(leaves, out var outlook);
        var frame = leaves.Frame;
        // In hand the place in the D is still to be chosen: the judge has looked at the best of several.
        if (frame.IsOver || frame.AwaitsLot || frame.InHand || leaves.Layout.Balls.Count < 2)
            return (value, outlook.Best.Chance);
        if (frame.Turn == _me)
            return Best(_own, workspace, leaves);
        if (frame.Exercise is not null || frame.Repeats)
            return (value, outlook.Best.Chance);
        var other = _workspaces.TryTake(out var free) ? free : new Workspace(_theirs);
        var (theirs, chance) = Best(_rival, other, leaves);
        _workspaces.Add(other);
        // Chances to win add up to 1, points up to 0.
        return (_mine.Objective.Unit == "win" ? 1 - theirs : -theirs, Math.Max(chance, outlook.Best.Chance));
    }

    private static (double Value, double Chance) Best(ShotSearch search, Workspace workspace, Situation from)
    {
        var safety = workspace.SafetyValueOf(from);
        var pot = search.Shallow(workspace, from, isReported: true);
        return pot is null ? (safety, 0) : (Math.Max(safety, pot.Value.Value), pot.Chance);
    }
}
