using DeepBaize.Core.Advice.Break;
using DeepBaize.Core.Advice.Decide;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Advice.Compare;

/// <summary>
/// Lays a player's own strokes beside one another, and beside the advice's best: all played with the same errors, carried on by the same
/// small search, until they are apart or the difference does not matter. See docs/compare.md.
/// </summary>
public sealed class Comparer
{
    /// <summary>Fewest and most strokes that are compared at once.</summary>
    public const int Fewest = 2,
        Most = 4;

    /// <summary>Strokes whose values differ by less than this are level, points.</summary>
    private const double Matters = 1;

    // Strokes of each column: with quick values, and carried on. Both double until the columns are apart.
    private const int FirstQuick = 96,
        MostQuick = 1024,
        FirstCarried = 24,
        MostCarried = 128,
        NudgeStrokes = 64;

    /// <summary>Strokes for one pot that leave the white this near to one another at about the same speed are one, m.</summary>
    private const double SamePlace = 0.1,
        SameSpeed = 1.15,
        SameAimDegrees = 0.3;

    // Shares of the work that are done after the stages.
    private const double AtFirst = 0.05,
        AtOwn = 0.4,
        AtAdvice = 0.7,
        AtAll = 0.9;

    /// <summary>Id of the advice's column.</summary>
    public const string AdviceId = "advice";

    /// <summary>Stages of a comparison.</summary>
    public static IReadOnlyList<SearchStage> Stages { get; } =
    [new("your strokes", AtOwn), new("the advice", AtAdvice), new("all of them", AtAll), new("small mistakes", 1)];

    private static readonly ErrorStream NudgeErrors = ErrorStream.Named("compare: mistakes");

    private readonly SearchContext _context;
    private readonly Situation _from;
    private readonly Continuation _on;
    private readonly List<Trials> _columns;
    private readonly Dictionary<Trials, ComparedColumn> _drawn = [];
    private string? _advice;
    private bool _isDecided;

    private Comparer(SearchContext context, IReadOnlyList<ComparedStroke> strokes)
    {
        (_context, _from) = (context, strokes[0].From);
        _on = new(context, _from);
        _columns = [.. strokes.Select(s => new Trials(s))];
    }

    /// <summary>Compares strokes from one table.</summary>
    /// <param name="strokes">Two to four.</param>
    /// <exception cref="InputException">Too few or too many strokes, or no ball is on.</exception>
    /// <exception cref="OperationCanceledException">Cancelled.</exception>
    public static Comparison Solve(
        IReadOnlyList<ComparedStroke> strokes,
        Player player,
        Player rival,
        TableShape shape,
        FairGate? gate = null,
        IProgress<Comparison>? progress = null,
        CancellationToken cancel = default
    )
    {
        var checks = new Checks("choices");
        checks.Range("length", strokes.Count, Fewest, Most);
        checks.ThrowIfAny();
        var from = strokes[0].From;
        if (from.Frame.IsOver || !from.OnSlots().Any())
            throw new InputException("content.balls", "There is no ball on.", "at least one ball that is on, and a frame under way");
        var question = new SearchQuestion(from.Frame, player, shape, PlanPreferences.Default, rival);
        var context = new SearchContext(question, gate ?? FairGate.Shared, cancel);
        context.Bound(from.Layout);
        return new Comparer(context, strokes).Run(progress);
    }

    private Comparison Run(IProgress<Comparison>? progress)
    {
        using var heart = new Heartbeat<Comparison>(progress, Now);
        Draw();
        Quick(FirstQuick);
        heart.Tell(AtFirst);
        PlayOn();
        _isDecided = true;
        heart.Tell(AtOwn);
        if (AdviceOf() is { } advice)
            Take(advice);
        Draw();
        heart.Tell(AtAdvice);
        PlayOn();
        heart.Tell(AtAll);
        Nudge();
        heart.Tell(1);
        return Now(1);
    }

    // ---- Outcomes --------------------------------------------------------------------------------------------------

    /// <summary>Plays on with every column until the best is apart from each other one, or no difference that matters is left.</summary>
    private void PlayOn()
    {
        for (var (quick, carried) = (FirstQuick, FirstCarried); ; (quick, carried) = (2 * quick, 2 * carried))
        {
            Quick(Math.Min(quick, MostQuick));
            Carry(Math.Min(carried, MostCarried));
            if ((quick >= MostQuick && carried >= MostCarried) || Pairs().All(p => IsApart(p.Less) || IsBound(p.Less)))
                return;
        }
    }

    private double LeastThatMatters => Matters * _context.Objective.Point;

    private static bool IsApart(in Estimate less) => Math.Abs(less.Value) > Estimate.ApartBy * less.Error;

    private bool IsBound(in Estimate less) => Math.Abs(less.Value) + Estimate.ApartBy * less.Error < LeastThatMatters;

    /// <summary>The best against each other one.</summary>
    private IEnumerable<(Trials Other, Estimate Less)> Pairs()
    {
        var ordered = Ordered();
        return ordered.Skip(1).Select(o => (o, ordered[0].Less(o)));
    }

    private List<Trials> Ordered() => [.. _columns.OrderByDescending(c => c.Value.Value)];

    private void Quick(int strokes) => Play(_context.Bounded(strokes, FirstQuick), 16, on: null);

    private void Carry(int strokes) => Play(_context.Bounded(strokes, FirstCarried), 4, _on);

    /// <summary>Plays the columns up to a number of strokes of the stream, in pieces so that the cores are shared evenly.</summary>
    private void Play(int strokes, int piece, Continuation? on)
    {
        // Differences are between the same strokes of a stream: a column that has joined later catches up.
        strokes = Math.Max(strokes, _columns.Max(c => on is null ? c.Strokes : c.CarriedOn));
        var jobs = new List<(Trials Column, int First, int Count)>();
        foreach (var column in _columns)
            for (var first = on is null ? column.Strokes : column.CarriedOn; first < strokes; first += piece)
                jobs.Add((column, first, Math.Min(piece, strokes - first)));
        var me = _from.Frame.Turn;
        var played = _context.InParallel(jobs.Count, (workspace, i) =>
            jobs[i].Column.Play(workspace, me, jobs[i].First, jobs[i].Count, on)
        );
        for (var i = 0; i < jobs.Count; i++)
            if (on is null)
                jobs[i].Column.AddQuick(jobs[i].First, played[i]);
            else
                jobs[i].Column.AddCarried(jobs[i].First, played[i]);
    }

    // ---- The advice's own stroke -----------------------------------------------------------------------------------

    private ComparedStroke? AdviceOf()
    {
        var decision = Decider.Solve(_from, _context.Player, _context.Rival, _context.Shape, _context.Gate, null, _context.Cancel);
        if (decision.Prospects.Count == 0)
            return null;
        var best = decision.Prospects[0];
        Situation From(Vec2? white) => white is { } at ? _from.WithWhiteAt(at) : _from;
        if (best.Attack is { Choice: var choice })
            return new(AdviceId, From(decision.White), choice.Stroke, choice.Pot, choice.Nominated);
        return best.Safety is { } safety
            ? new(AdviceId, From(decision.SafetyWhite), safety.Aim.Stroke, null, safety.Aim.Ball)
            : new(AdviceId, From(decision.White), best.Escape!.Aim.Stroke, null, best.Escape.Aim.Ball);
    }

    /// <summary>Adds the advice's stroke as a column, unless one of the player's is the same.</summary>
    private void Take(ComparedStroke advice)
    {
        var workspace = new Workspace(_context);
        var white = Rest(workspace, advice);
        var same = _columns.Find(c => IsSame(workspace, c.Stroke, advice, white));
        _advice = same?.Stroke.Id ?? AdviceId;
        if (same is null)
            _columns.Add(new(advice));
    }

    private static bool IsSame(Workspace workspace, ComparedStroke own, ComparedStroke advice, Vec2? white)
    {
        if (own.Pot is null != advice.Pot is null || (own.Pot is { } mine && !mine.IsSameAs(advice.Pot!)))
            return false;
        if (own.From.Layout.White.At != advice.From.Layout.White.At || Pace.Ratio(own.Stroke.Pace, advice.Stroke.Pace) > SameSpeed)
            return false;
        if (Math.Abs(Math.IEEERemainder(own.Stroke.AimDegrees - advice.Stroke.AimDegrees, 360)) > SameAimDegrees)
            return false;
        return Rest(workspace, own) is { } rest && white is { } there && rest.DistanceTo(there) < SamePlace;
    }

    private static Vec2? Rest(Workspace workspace, ComparedStroke one)
    {
        workspace.Play(one.From, one.Stroke, default, one.Nominated);
        return workspace.Simulator.IsOnTable(0) ? workspace.Simulator.At(0) : null;
    }

    // ---- Small mistakes --------------------------------------------------------------------------------------------

    private const double HalfAStep = 0.5,
        QuarterOfATip = 0.25;

    private void Nudge()
    {
        var jobs = _columns.SelectMany(c => Enum.GetValues<Nudge>().Select(n => (Column: c, Nudge: n))).ToList();
        var nudged = _context.InParallel(jobs.Count, (workspace, i) => Nudged(workspace, jobs[i].Column, jobs[i].Nudge));
        foreach (var group in jobs.Zip(nudged).GroupBy(j => j.First.Column))
            _drawn[group.Key] = _drawn[group.Key] with { Nudges = [.. group.Select(j => j.Second).OfType<Nudged>()] };
    }

    /// <summary>The stroke with a small mistake; null where the knob cannot be turned so far.</summary>
    private static Stroke? With(Stroke stroke, Nudge nudge)
    {
        var (pace, height, side) = nudge switch
        {
            Compare.Nudge.Harder => (HalfAStep, 0.0, 0.0),
            Compare.Nudge.Softer => (-HalfAStep, 0.0, 0.0),
            Compare.Nudge.Higher => (0.0, QuarterOfATip, 0.0),
            Compare.Nudge.Lower => (0.0, -QuarterOfATip, 0.0),
            Compare.Nudge.MoreRight => (0.0, 0.0, QuarterOfATip),
            _ => (0.0, 0.0, -QuarterOfATip),
        };
        var other = stroke with { Pace = stroke.Pace + pace, HeightTips = stroke.HeightTips + height, SideTips = stroke.SideTips + side };
        var isPossible =
            other.Pace >= Pace.Slowest
            && other.Pace <= Pace.Hardest
            && Math.Sqrt(Square(other.HeightTips) + Square(other.SideTips)) <= Tip.Limit;
        return isPossible ? other : null;
    }

    private static double Square(double x) => x * x;

    private Nudged? Nudged(Workspace workspace, Trials column, Nudge nudge)
    {
        var (from, meant, nominated) = (column.Stroke.From, column.Stroke.Stroke, column.Stroke.Nominated);
        if (With(meant, nudge) is not { } mistaken)
            return null;
        // The player means the one and plays the other: errors are those of the stroke that is meant.
        var scatter = column.ScatterOf(workspace);
        Sums with = new(),
            without = new();
        for (var i = 0; i < _context.Bounded(NudgeStrokes, 32); i++)
        {
            var error = scatter.Error(NudgeErrors.At(i));
            with.Add(i, workspace.ValueOf(workspace.Play(from, mistaken, error, nominated).Leaves));
            without.Add(i, workspace.ValueOf(workspace.Play(from, meant, error, nominated).Leaves));
        }
        var played = workspace.Play(from, mistaken, default, nominated);
        Vec2? white = workspace.Simulator.IsOnTable(0) ? workspace.Simulator.At(0) : null;
        return new(nudge, played.Ruling.Points > 0, white, with.Less(without));
    }

    // ---- What is told ----------------------------------------------------------------------------------------------

    /// <summary>Plays the new columns without error.</summary>
    private void Draw()
    {
        foreach (var column in _columns.Where(c => !_drawn.ContainsKey(c)))
            _drawn[column] = Drawn(column);
    }

    private ComparedColumn Drawn(Trials column)
    {
        var (workspace, one) = (new Workspace(_context), column.Stroke);
        var played = workspace.Play(one.From, one.Stroke, default, one.Nominated);
        var (reach, route) = (Reach.Of(one.From.Layout, one.Stroke, _context.Player), Route.Of(workspace.Record));
        var path = ShotPath.Points(workspace.Record, one.From.Layout.Balls.Count, ShotPath.Drawn)[0];
        Vec2? white = workspace.Simulator.IsOnTable(0) ? workspace.Simulator.At(0) : null;
        workspace.ValueOf(played.Leaves, out var outlook);
        var cover = one.Pot is null ? null : Cover.Of(workspace, one.From, one.Stroke, one.Nominated, column.ScatterOf(workspace).Pace);
        return new(one, reach, route, default!, default, default, null, null, played, outlook, cover, new(path, white, []), []);
    }

    private Comparison Now(double share)
    {
        List<ComparedColumn> columns = [.. _columns.Where(c => c.Strokes > 0 && _drawn.ContainsKey(c)).Select(Told)];
        // The advice's column joins once it has been played on.
        List<Trials> ordered = [.. Ordered().Where(c => c.CarriedOn > 0)];
        var value = columns.Count > 0 ? columns.Max(c => c.Value.Value) : 0.5;
        var objective = _context.Objective;
        return new(
            objective.Unit,
            objective.ModelErrorOf(value),
            _context.Examined,
            share,
            _context.TableShare,
            columns,
            _advice,
            _isDecided ? [.. ordered.Select(c => c.Stroke.Id)] : [],
            _isDecided ? [.. ordered.SelectMany((better, i) => ordered.Skip(i + 1).Select(other => DifferenceOf(better, other)))] : []
        );
    }

    private ComparedColumn Told(Trials column)
    {
        var drawn = _drawn[column];
        return drawn with
        {
            Odds = column.Odds,
            Value = column.Value,
            Points = column.Points,
            IfScores = column.IfScores,
            IfNot = column.IfNot,
            Drawing = drawn.Drawing with { Spread = column.Spread },
        };
    }

    private ComparedDifference DifferenceOf(Trials better, Trials other)
    {
        var less = better.Less(other);
        var (chance, position, leave) = better.PartsOver(other);
        return new(
            better.Stroke.Id,
            other.Stroke.Id,
            less,
            !IsApart(less) || Math.Abs(less.Value) < LeastThatMatters,
            chance,
            position,
            leave
        );
    }
}
