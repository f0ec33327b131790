using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Search;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;

namespace DeepBaize.Core.Advice.Compare;

/// <summary>
/// A compared stroke with the outcomes sampled so far. The value has two parts, each from a stream of its own: the quick value of the table
/// that every stroke leaves, and, for fewer strokes, by how much carrying that table on changes it (a control variate).
/// </summary>
internal sealed class Trials(ComparedStroke stroke)
{
    private static readonly ErrorStream Quick = ErrorStream.Named("compare: quick"),
        Carried = ErrorStream.Named("compare: carried on");

    private readonly Sums _value = new(),
        _points = new(),
        _scores = new(),
        _scored = new(),
        _notScored = new(),
        _others = new(),
        _fouls = new(),
        _holds = new(),
        _leavesPot = new(),
        _snookers = new();
    private readonly Sums _more = new(),
        _moreIfScores = new(),
        _moreScores = new(),
        _moreIfNot = new(),
        _moreOthers = new(),
        _morePots = new();
    private readonly List<Vec2> _rests = [];

    public ComparedStroke Stroke { get; } = stroke;

    /// <summary>Number of strokes sampled with the quick value.</summary>
    public int Strokes => _value.Strokes;

    /// <summary>Number of strokes whose tables have been carried on.</summary>
    public int CarriedOn => _more.Strokes;

    /// <summary>One sampled outcome.</summary>
    internal readonly record struct Outcome(
        bool Scores,
        bool IsFoul,
        bool Holds,
        bool LeavesPot,
        bool Snookers,
        double Value,
        double Points,
        Vec2? White,
        double More = 0,
        double MorePot = 0
    );

    /// <summary>Plays the strokes <paramref name="first"/> … of a stream.</summary>
    /// <param name="on">Carries the tables on; null: quick values only.</param>
    public List<Outcome> Play(Workspace workspace, int me, int first, int count, Continuation? on)
    {
        var from = Stroke.From;
        var scatter = ScatterOf(workspace);
        var stream = on is null ? Quick : Carried;
        var outcomes = new List<Outcome>(count);
        for (var i = first; i < first + count; i++)
            outcomes.Add(Judged(workspace, workspace.Play(from, Stroke.Stroke, scatter.Error(stream.At(i)), Stroke.Nominated), me, on));
        return outcomes;
    }

    /// <summary>Returns how the stroke scatters.</summary>
    public Scatter ScatterOf(Workspace workspace) =>
        Stroke.Pot is { } pot
            ? workspace.ScatterOf(
                Stroke.From.Layout,
                Stroke.Stroke,
                workspace.Player.Skill.Times(Reach.Of(Stroke.From.Layout, Stroke.Stroke, workspace.Player).ErrorFactor),
                pot
            )
            : workspace.ScatterOf(Stroke.From.Layout, Stroke.Stroke);

    private static Outcome Judged(Workspace workspace, PlayedStroke played, int me, Continuation? on)
    {
        var (ruling, leaves) = (played.Ruling, played.Leaves);
        var scores = ruling.Points > 0;
        Vec2? white = workspace.Simulator.IsOnTable(0) ? workspace.Simulator.At(0) : null;
        var value = workspace.ValueOf(leaves, out var outlook);
        var theirs = !leaves.Frame.IsOver && leaves.Frame.Turn != me;
        var outcome = new Outcome(
            scores,
            ruling.IsFoul,
            scores && (outlook.Best.Chance >= PositionJudge.Even || leaves.Frame.IsOver),
            theirs && outlook.LeavesPot,
            theirs && outlook.Sight.IsSnookered,
            value,
            outlook.PointsAfter(ruling),
            white
        );
        if (on is null)
            return outcome;
        var (carried, chance) = on.Of(workspace, leaves);
        return outcome with
        {
            More = carried - value,
            MorePot = (theirs && chance >= PositionJudge.Even ? 1 : 0) - (outcome.LeavesPot ? 1 : 0),
        };
    }

    /// <summary>Takes over outcomes with quick values, in the order of their stream.</summary>
    public void AddQuick(int first, List<Outcome> outcomes)
    {
        for (var k = 0; k < outcomes.Count; k++)
        {
            var (i, o) = (first + k, outcomes[k]);
            _value.Add(i, o.Value);
            _points.Add(i, o.Points);
            _scores.Add(i, o.Scores);
            _others.Add(i, !o.Scores);
            _scored.Add(i, o.Scores ? o.Value : 0);
            _notScored.Add(i, o.Scores ? 0 : o.Value);
            _fouls.Add(i, o.IsFoul);
            _holds.Add(i, o.Holds);
            _leavesPot.Add(i, o.LeavesPot);
            _snookers.Add(i, o.Snookers);
            if (o.White is { } rest)
                _rests.Add(rest);
        }
    }

    /// <summary>Takes over outcomes that were carried on, in the order of their stream.</summary>
    public void AddCarried(int first, List<Outcome> outcomes)
    {
        for (var k = 0; k < outcomes.Count; k++)
        {
            var (i, o) = (first + k, outcomes[k]);
            _more.Add(i, o.More);
            _moreScores.Add(i, o.Scores);
            _moreOthers.Add(i, !o.Scores);
            _moreIfScores.Add(i, o.Scores ? o.More : 0);
            _moreIfNot.Add(i, o.Scores ? 0 : o.More);
            _morePots.Add(i, o.MorePot);
        }
    }

    /// <summary>Expected value.</summary>
    public Estimate Value => _value.Mean.Plus(_more.Mean);

    /// <summary>Points made, less those given away and those that the other player may expect.</summary>
    public Estimate Points => _points.Mean;

    /// <summary>Mean value of the outcomes that score; null if there was none.</summary>
    public Estimate? IfScores => _scores.Total > 0 ? _scored.For(_scores).Plus(_moreIfScores.For(_moreScores)) : null;

    /// <summary>Mean value of the others; null if there was none.</summary>
    public Estimate? IfNot => _others.Total > 0 ? _notScored.For(_others).Plus(_moreIfNot.For(_moreOthers)) : null;

    /// <summary>Shares of the outcomes.</summary>
    public ComparedOdds Odds
    {
        get
        {
            var leaves = _morePots.Strokes == 0 ? _leavesPot.Share : _leavesPot.Share.Plus(_morePots.Mean);
            return new(
                _scores.Share,
                _fouls.Share,
                _holds.For(_scores),
                leaves with
                {
                    Value = Math.Clamp(leaves.Value, 0, 1),
                },
                _snookers.Share
            );
        }
    }

    /// <summary>From fewer places an outline would be an accident.</summary>
    private const int FewestToOutline = 100;

    /// <summary>Outlines of where the white stops in two strokes of three, m.</summary>
    public IReadOnlyList<IReadOnlyList<Vec2>> Spread =>
        _rests.Count < FewestToOutline ? [] : new Density(_rests, Dimensions.Bed).Outline(0.68);

    /// <summary>By how much this stroke is worth more than another, from the same errors.</summary>
    public Estimate Less(Trials other) =>
        _more.Strokes == 0 ? _value.Less(other._value) : _value.Less(other._value).Plus(_more.Less(other._more));

    /// <summary>
    /// Splits the difference of two values s·S + (1 − s)·M, with s the share that scores, S and M the mean values of the two kinds of
    /// outcome: Δs·(S − M) + s·ΔS + (1 − s)·ΔM, unchanged factors as means of the two. The three add up to the
    /// difference within its error.
    /// </summary>
    public (double Chance, double Position, double Leave) PartsOver(Trials other)
    {
        var (mine, theirs) = (Parts, other.Parts);
        double Mean(double a, double b) => (a + b) / 2;
        // Where one of the two never scores, or always does, what it would have left is taken to be what the other leaves.
        var (mineIf, theirsIf) = (mine.IfScores ?? theirs.IfScores ?? 0, theirs.IfScores ?? mine.IfScores ?? 0);
        var (mineNot, theirsNot) = (mine.IfNot ?? theirs.IfNot ?? 0, theirs.IfNot ?? mine.IfNot ?? 0);
        var share = Mean(mine.Scores, theirs.Scores);
        return (
            (mine.Scores - theirs.Scores) * (Mean(mineIf, theirsIf) - Mean(mineNot, theirsNot)),
            share * (mineIf - theirsIf),
            (1 - share) * (mineNot - theirsNot)
        );
    }

    private (double Scores, double? IfScores, double? IfNot) Parts => (_scores.Share.Value, IfScores?.Value, IfNot?.Value);
}
