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
    private const int JudgedOfKind = 3,
        ChoiceStrokes = 64,
        ToldStrokes = 256,
        Doubled = 25;
    private const double WorthOfDouble = 0.25;

    private static readonly ErrorStream Choosing = ErrorStream.Named("openings: choose"),
        Telling = ErrorStream.Named("openings: tell"),
        Ranking = ErrorStream.Named("openings: rank rallies"),
        TellingRallies = ErrorStream.Named("openings: tell rallies");

    private static readonly ContestEffort RallyEffort = new(32, 128, 0.02);
    private const int ToldRallies = 128;

    private readonly SearchContext _mine,
        _theirs;
    private readonly TableShape _shape;
    private readonly LeaveJudge _judge;
    private readonly Rallies _rallies;

    private BlackBallGame(SearchContext mine, SearchContext theirs) =>
        (_mine, _rallies, _shape, _theirs, _judge) = (mine, new(mine, theirs), mine.Shape, theirs, new(theirs.Player, mine.Shape));

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
        SearchContext Of(Player p) => new(p, shape, PlanPreferences.Default, gate ?? FairGate.Shared, cancel);
        return new BlackBallGame(Of(player), Of(rival)).Run(progress);
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

    private sealed record OpeningTrial(Situation From, OpeningKind Kind, double Offset, Stroke Stroke, double Worth);

    private IReadOnlyList<Opening> Run(IProgress<BlackBallProgress>? progress)
    {
        List<Opening> openings = [];
        using var heart = new Heartbeat<BlackBallProgress>(progress, share => new(_mine.Examined, share, openings));
        var strokes = new SafetyStrokes(_mine, _judge);
        List<OpeningTrial> tried =
        [
            .. _mine.InParallel(Places.Length, (workspace, i) => Play(workspace, strokes, From(Places[i]))).SelectMany(t => t),
        ];
        heart.Tell(0.2);
        List<OpeningTrial> candidates =
        [
            .. tried
                .GroupBy(t => t.Kind)
                .SelectMany(g => g.OrderBy(t => t.Worth).DistinctBy(t => (t.From.Layout.White, t.Offset)).Take(JudgedOfKind)),
        ];
        // Of each kind the one that leaves least goes on.
        var judged = _mine.InParallel(candidates.Count, (workspace, i) => OddsOf(workspace, candidates[i], ChoiceStrokes, Choosing));
        List<OpeningTrial> kinds =
        [
            .. candidates
                .Zip(judged, (OpeningTrial, Odds) => (OpeningTrial, Odds))
                .GroupBy(c => c.OpeningTrial.Kind)
                .Select(g => g.MaxBy(c => c.Odds.Safe.Value - c.Odds.Foul.Value).OpeningTrial),
        ];
        openings = _mine.InParallel(kinds.Count, (workspace, i) => Told(workspace, kinds[i]));
        heart.Tell(0.4);
        var ranked = Contest.Run(_mine, kinds, RallyEffort, (_, kind, i) => _rallies.IsWon(kind.From, kind.Stroke, Ranking, i) ? 1 : 0);
        heart.Tell(0.7);
        var wins = ranked.ConvertAll(r => _rallies.Wins(r.Entrant.From, r.Entrant.Stroke, ToldRallies, TellingRallies));
        openings = [.. ranked.Select((r, i) => openings[kinds.IndexOf(r.Entrant)] with { Wins = wins[i], IsLevel = r.IsLevel })];
        heart.Tell(1);
        return openings;
    }

    private List<OpeningTrial> Play(Workspace workspace, SafetyStrokes strokes, Situation from)
    {
        var tried = new List<OpeningTrial>();
        foreach (var (offset, stroke) in strokes.Of(from, 1))
        {
            var played = workspace.Play(from, stroke, default, Ball.Black);
            if (played.Ruling.IsFoul || played.Ruling.Points > 0)
                continue;
            tried.Add(
                new(from, KindOf(workspace), offset, stroke, _judge.Of(played.Leaves, workspace.LinesOf(played.Leaves.Layout)).Worth)
            );
        }
        return tried;
    }

    private static OpeningKind KindOf(Workspace workspace)
    {
        var (white, black) = (workspace.Simulator.At(0), workspace.Simulator.At(1));
        // Down past the middle after the top cushion, with the white behind the baulk line or near it.
        if (black.X < Length / 2 && white.X < BaulkLineX + 0.3)
            return OpeningKind.Lengthwise;
        var toSide = Math.Min(black.Y, Width - black.Y) - BallRadius;
        return toSide < 0.15 && (black.Y - Width / 2) * (white.Y - Width / 2) < 0 && Math.Min(white.Y, Width - white.Y) < 0.35
            ? OpeningKind.Across
            : OpeningKind.Other;
    }

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
            var leave = _judge.Of(played.Leaves, lines);
            var isPot = !isFoul && (stream == Telling ? _judge.LeavesPot(played.Leaves, lines, leave) : leave.LeavesPot);
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
            1 - Math.Abs(tried.Offset),
            Route.Of(workspace.Record),
            odds,
            Wins: default,
            IsLevel: false,
            new(paths[0], paths[1])
        );
    }
}
