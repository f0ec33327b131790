using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using DeepBaize.Core.Work;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Advice.BlackBall;

/// <summary>
/// The black-ball game: the openings compared, and rallies played out to win or loss by both players' skill. See docs/safety.md.
/// </summary>
public sealed class BlackBallGame
{
    private const int ScreenedOfKind = 40,
        ScreenStrokes = 12,
        RefinedOfKind = 4,
        RefineStrokes = 24,
        RalliedOfKind = 2,
        ChoiceStrokes = 64,
        ToldStrokes = 256,
        Doubled = 25;
    private const double WorthOfDouble = 0.25;

    // Shares of the work that are done after the stages.
    private const double AtTried = 0.15,
        AtScreened = 0.3,
        AtRefined = 0.45,
        AtRanked = 0.75;

    /// <summary>Stages of a comparison.</summary>
    public static IReadOnlyList<SearchStage> Stages { get; } =
    [new("strokes from the D", AtRefined), new("rallies to choose", AtRanked), new("rallies to report", 1)];

    private static readonly ErrorStream Screening = ErrorStream.Named("openings: sift"),
        Refining = ErrorStream.Named("openings: refine"),
        Choosing = ErrorStream.Named("openings: choose"),
        Telling = ErrorStream.Named("openings: tell"),
        Ranking = ErrorStream.Named("openings: rank rallies"),
        TellingRallies = ErrorStream.Named("openings: tell rallies");

    private static readonly ContestEffort RallyEffort = new(32, 128, 0.02);
    private const int ToldRallies = 128;

    /// <summary>The black alone, scores level.</summary>
    private static readonly Frame LastBlack = Frame.Create(0, [Ball.Black], new());

    private readonly SearchContext _mine,
        _theirs;
    private readonly TableShape _shape;
    private readonly Rallies _rallies;
    private readonly SafetyStrokes _strokes;

    private BlackBallGame(SearchContext mine, SearchContext theirs)
    {
        (_mine, _rallies, _shape, _theirs) = (mine, new(mine, theirs), mine.Shape, theirs);
        _strokes = new(mine);
    }

    /// <summary>The best opening of each kind, the one that wins most first.</summary>
    /// <exception cref="OperationCanceledException">Cancelled.</exception>
    public static IReadOnlyList<Opening> Compare(
        Player player,
        Player rival,
        TableShape shape,
        FairGate? gate = null,
        IProgress<BlackBallProgress>? progress = null,
        CancellationToken cancel = default
    )
    {
        SearchContext Of(Player one, Player other, int me) =>
            new(new(LastBlack, one, shape, PlanPreferences.Default, other) { Me = me }, gate ?? FairGate.Shared, cancel);
        return new BlackBallGame(Of(player, rival, 0), Of(rival, player, 1)).Run(progress);
    }

    /// <summary>Places for the white: across the D, on the line and behind it.</summary>
    private static readonly Vec2[] Places =
    [
        .. new[] { -0.25, -0.15, -0.05, 0.05, 0.15, 0.25 }.Select(y => new Vec2(BaulkLineX - 0.01, Width / 2 + y)),
        new(BaulkLineX - 0.18, Width / 2 - 0.1),
        new(BaulkLineX - 0.18, Width / 2 + 0.1),
    ];

    private static Situation From(Vec2 white) =>
        Situation.Create(Layout.OfRest([new(Ball.White, white), new(Ball.Black, Spot(Ball.Black))]), new() { On = BallOn.Black });

    private sealed record OpeningTrial(Situation From, OpeningKind Kind, TriedSafety Tried)
    {
        public Stroke Stroke => Tried.Stroke;

        public double Offset => Tried.Offset;
    }

    private IReadOnlyList<Opening> Run(IProgress<BlackBallProgress>? progress)
    {
        List<Opening> openings = [];
        using var heart = new Heartbeat<BlackBallProgress>(progress, share => new(_mine.Examined, share, openings));
        List<OpeningTrial> tried =
        [
            .. _mine.InParallel(Places.Length, (workspace, i) => Play(workspace, From(Places[i]))).SelectMany(t => t),
        ];
        heart.Tell(AtTried);
        // Of each kind many strokes are judged with errors, and the best of them refined: what an opening leaves without error says little.
        List<OpeningTrial> screened =
        [
            .. tried
                .GroupBy(t => t.Kind)
                .SelectMany(g =>
                    Best(g.OrderByDescending(t => t.Tried.Value).Take(_mine.Bounded(ScreenedOfKind, 6)), ScreenStrokes, Screening)
                        .Take(RefinedOfKind)
                ),
        ];
        heart.Tell(AtScreened);
        var refined = _mine.InParallel(screened.Count, (workspace, i) => Refine(workspace, screened[i]));
        List<OpeningTrial> candidates =
        [
            .. refined.GroupBy(t => t.Kind).SelectMany(g => Best(g, ChoiceStrokes, Choosing).Take(RalliedOfKind)),
        ];
        heart.Tell(AtRefined);
        // By rallies the best of each kind; they are told by others, and stand in the order of these.
        var ranked = Contest.Run(
            _mine,
            candidates,
            RallyEffort,
            (_, kind, i) => _rallies.IsWon(kind.From, kind.Stroke, Ranking, i) ? 1 : 0
        );
        List<OpeningTrial> kinds = [.. ranked.Select(r => r.Entrant).DistinctBy(t => t.Kind)];
        openings = _mine.InParallel(kinds.Count, (workspace, i) => Told(workspace, kinds[i]));
        heart.Tell(AtRanked);
        var rallies = _mine.Bounded(ToldRallies, ToldRallies);
        var told = kinds.Select((k, i) => openings[i] with { Wins = _rallies.Wins(k.From, k.Stroke, rallies, TellingRallies) });
        List<Opening> ordered = [.. told.OrderByDescending(o => o.Wins.Value)];
        openings = [.. ordered.Select((o, i) => o with { IsLevel = i > 0 && o.Wins.IsLevelWith(ordered[0].Wins) })];
        heart.Tell(1);
        return openings;
    }

    private List<OpeningTrial> Play(Workspace workspace, Situation from)
    {
        var tried = new List<OpeningTrial>();
        foreach (var (offset, stroke) in _strokes.Of(from, 1))
            if (_strokes.Try(workspace, from, 1, offset, stroke) is { Played.Ruling.Points: 0 } one)
                tried.Add(new(from, KindOf(one.Played), one));
        return tried;
    }

    /// <summary>The best by the mean of a number of strokes with errors.</summary>
    private IEnumerable<OpeningTrial> Best(IEnumerable<OpeningTrial> trials, int strokes, ErrorStream stream)
    {
        List<OpeningTrial> all = [.. trials];
        var values = _mine.InParallel(all.Count, (workspace, i) => Mean(workspace, all[i], strokes, stream));
        return all.Zip(values).OrderByDescending(t => t.Second).Select(t => t.First);
    }

    private double Mean(Workspace workspace, OpeningTrial trial, int strokes, ErrorStream stream) =>
        _strokes.MeanOf(workspace, trial.From, trial.Stroke, Ball.Black, stream, strokes);

    private sealed record Valued(OpeningTrial Trial, double Value);

    private OpeningTrial Refine(Workspace workspace, OpeningTrial seed)
    {
        const double widths = 0.06;
        var beside = SafetyStrokes.DegreesFor(seed.From, 1, widths);
        return Refinement
            .Better<Valued>(
                new(seed, Mean(workspace, seed, RefineStrokes, Refining)),
                [new(Speed: 0.11), new(AimDegrees: beside), new(Height: 0.4), new(Side: 0.4)],
                halvings: 2,
                (now, change) =>
                {
                    if (change.Of(now.Trial.Stroke, SafetyStrokes.Softest, SafetyStrokes.Hardest) is not { } stroke)
                        return null;
                    var offset = now.Trial.Offset + widths * change.AimDegrees / beside;
                    if (
                        _strokes.Try(workspace, seed.From, 1, offset, stroke) is not { Played.Ruling.Points: 0 } tried
                        || KindOf(tried.Played) != seed.Kind
                    )
                        return null;
                    var next = new OpeningTrial(seed.From, seed.Kind, tried);
                    return new(next, Mean(workspace, next, RefineStrokes, Refining));
                },
                (a, b) => a.Value > b.Value,
                seed.From.Layout.Mirror
            )
            .Trial;
    }

    private static OpeningKind KindOf(PlayedStroke played)
    {
        var (white, black) = (played.Leaves.Layout.White.At, played.Leaves.Layout.Balls[1].At);
        // At opposite ends of the table, whichever is at which.
        if (Math.Min(white.X, black.X) < AtEnd * Length && Math.Max(white.X, black.X) > (1 - AtEnd) * Length)
            return OpeningKind.Lengthwise;
        // At opposite side cushions.
        static double ToSide(Vec2 ball) => Math.Min(ball.Y, Width - ball.Y) - BallRadius;
        return ToSide(black) < 0.15 && ToSide(white) < 0.32 && (black.Y - Width / 2) * (white.Y - Width / 2) < 0
            ? OpeningKind.Across
            : OpeningKind.Other;
    }

    /// <summary>So much of the table's length is an end of it.</summary>
    private const double AtEnd = 0.3;

    private OpeningOdds OddsOf(Workspace workspace, OpeningTrial tried, int strokes, ErrorStream stream)
    {
        var reach = Reach.Of(tried.From.Layout, tried.Stroke, _mine.Player);
        var scatter = workspace.ScatterOf(tried.From.Layout, tried.Stroke, _mine.Player.Skill.Times(reach.ErrorFactor));
        var (pots, doubles, looked, tight, fouls, safe) = (new Sums(), new Sums(), new Sums(), new Sums(), new Sums(), new Sums());
        for (var i = 0; i < strokes; i++)
        {
            var played = workspace.Play(tried.From, tried.Stroke, scatter.Error(stream.At(i)), Ball.Black);
            var isFoul = played.Ruling.IsFoul;
            var lines = workspace.LinesOf(played.Leaves.Layout);
            var leave = _mine.Judge.Of(played.Leaves, lines);
            var isPot =
                !isFoul && (stream == Telling ? _mine.Judge.BestChance(played.Leaves, lines, leave) > PositionJudge.Even : leave.LeavesPot);
            fouls.Add(i, isFoul);
            pots.Add(i, isPot);
            safe.Add(i, !isFoul && !isPot);
            tight.Add(i, !isFoul && leave.Lie.IsTight);
            // Doubles take long to look for: of the first that leave no pot.
            if (isFoul || isPot || played.Ruling.NextFrame.IsOver || looked.Strokes == Doubled)
                continue;
            looked.Add(i, true);
            doubles.Add(i, TableReading.Doubles(played.Leaves.Layout, _theirs.Player, _shape) > WorthOfDouble);
        }
        var (noPot, share) = (safe.Share, doubles.Share);
        var doubleLeft = share.Times(noPot);
        return new(noPot.Minus(doubleLeft), pots.Share, doubleLeft, tight.Share, fouls.Share);
    }

    /// <summary>With its odds; the rallies come later.</summary>
    private Opening Told(Workspace workspace, OpeningTrial tried)
    {
        var odds = OddsOf(workspace, tried, ToldStrokes, Telling);
        workspace.Play(tried.From, tried.Stroke, default, Ball.Black);
        var paths = ShotPath.Points(workspace.Record, 2, ShotPath.Drawn);
        return new(
            tried.Kind,
            tried.From.Layout.White.At,
            tried.Stroke,
            Math.Max(0, 1 - Math.Abs(tried.Offset)),
            Route.Of(workspace.Record),
            odds,
            Wins: default,
            IsLevel: false,
            new(paths[0], paths[1])
        );
    }
}
