using DeepBaize.Core.Geometry;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Advice.BlackBall;

/// <summary>
/// The black-ball game: the openings compared, and rallies played out to win or loss by both players' skill. See docs/safety.md.
/// </summary>
public sealed class BlackBallGame
{
    private const int JudgedOfKind = 3,
        Samples = 150,
        Doubled = 25,
        RalliesOfEach = 60,
        MostStrokes = 24;
    private const double BetterThanEven = 0.5,
        WorthOfDouble = 0.25;

    /// <summary>
    /// A player goes for the black from this chance up: a miss loses about as often as it does not. Common practice, no source.
    /// </summary>
    private const double GoesForIt = 0.5;

    private readonly SearchContext _mine,
        _theirs;
    private readonly TableShape _shape;
    private readonly LeaveJudge _judge;

    private BlackBallGame(SearchContext mine, SearchContext theirs) =>
        (_mine, _theirs, _shape, _judge) = (mine, theirs, mine.Shape, new(theirs.Player));

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

    private sealed record Tried(Situation From, OpeningKind Kind, double Offset, Stroke Stroke, double Worth);

    private IReadOnlyList<Opening> Run(IProgress<BlackBallProgress>? progress)
    {
        var strokes = new SafetyStrokes(_mine, _judge);
        List<Tried> tried = [.. _mine.InParallel(Places.Length, (bench, i) => Play(bench, strokes, From(Places[i]))).SelectMany(t => t)];
        progress?.Report(new(_mine.Examined, 0.2, []));
        List<Tried> candidates =
        [
            .. tried
                .GroupBy(t => t.Kind)
                .SelectMany(g => g.OrderBy(t => t.Worth).DistinctBy(t => (t.From.Layout.White, t.Offset)).Take(JudgedOfKind)),
        ];
        var openings = _mine.InParallel(candidates.Count, (bench, i) => Judge(bench, candidates[i])).ToList();
        // Of each kind the one that leaves least goes on.
        openings = [.. openings.GroupBy(o => o.Kind).Select(g => g.MaxBy(o => o.Odds.Safe - o.Odds.Foul)!)];
        progress?.Report(new(_mine.Examined, 0.5, openings));
        for (var k = 0; k < openings.Count; k++)
        {
            var opening = openings[k];
            var wins = _mine.InParallel(RalliesOfEach, (bench, i) => Rally(opening, 300 + i)).Count(w => w);
            openings[k] = opening with { Rallies = new((double)wins / RalliesOfEach, RalliesOfEach) };
            progress?.Report(new(_mine.Examined, 0.5 + 0.5 * (k + 1) / openings.Count, openings));
        }
        return [.. openings.OrderByDescending(o => o.Rallies.Wins).ThenByDescending(o => o.Odds.Safe)];
    }

    private List<Tried> Play(Bench bench, SafetyStrokes strokes, Situation from)
    {
        var tried = new List<Tried>();
        foreach (var (offset, stroke) in strokes.Of(from, 1))
        {
            var played = bench.Play(from, stroke, default, Ball.Black);
            if (played.Ruling.IsFoul || played.Ruling.Points > 0)
                continue;
            tried.Add(new(from, KindOf(bench), offset, stroke, _judge.Of(played.Leaves, bench.LinesOf(played.Leaves.Layout)).Worth));
        }
        return tried;
    }

    private static OpeningKind KindOf(Bench bench)
    {
        var (white, black) = (bench.Simulator.At(0), bench.Simulator.At(1));
        // Down past the middle after the top cushion, with the white behind the baulk line or near it.
        if (black.X < Length / 2 && white.X < BaulkLineX + 0.3)
            return OpeningKind.Lengthwise;
        var toSide = Math.Min(black.Y, Width - black.Y) - BallRadius;
        return toSide < 0.15 && (black.Y - Width / 2) * (white.Y - Width / 2) < 0 && Math.Min(white.Y, Width - white.Y) < 0.35
            ? OpeningKind.Across
            : OpeningKind.Other;
    }

    private Opening Judge(Bench bench, Tried tried)
    {
        var reach = Reach.Of(tried.From.Layout, tried.Stroke, _mine.Player);
        var (skill, random) = (_mine.Player.Skill.Times(reach.ErrorFactor), new Random(13));
        var (pots, doubles, looked, tight, fouls) = (0, 0, 0, 0, 0);
        for (var i = 0; i < Samples; i++)
        {
            var played = bench.Play(tried.From, tried.Stroke, StrokeError.Draw(random, skill), Ball.Black);
            if (played.Ruling.IsFoul)
            {
                fouls++;
                continue;
            }
            if (played.Ruling.NextFrame.IsOver)
                continue;
            var leave = _judge.Of(played.Leaves, bench.LinesOf(played.Leaves.Layout));
            if (leave.Lie.IsTight)
                tight++;
            if (leave.LeavesPot)
                pots++;
            else if (looked < Doubled)
            {
                looked++;
                if (TableReading.Doubles(played.Leaves.Layout, _theirs.Player, _shape) > WorthOfDouble)
                    doubles++;
            }
        }
        var (potLeft, foul) = ((double)pots / Samples, (double)fouls / Samples);
        var doubleLeft = looked == 0 ? 0 : (double)doubles / looked * (1 - potLeft - foul);
        bench.Play(tried.From, tried.Stroke, default, Ball.Black);
        var paths = ShotPath.Points(bench.Record, 2, ShotPath.Drawn);
        var odds = new OpeningOdds(1 - potLeft - doubleLeft - foul, potLeft, doubleLeft, (double)tight / Samples, foul);
        return new(
            tried.Kind,
            tried.From.Layout.White.At,
            tried.Stroke,
            1 - Math.Abs(tried.Offset),
            Route.Of(bench.Record),
            odds,
            default,
            new(paths[0], paths[1])
        );
    }

    /// <summary>A rally from an opening to its end; whether the one who opened has won. A foul, and the black, end it.</summary>
    private bool Rally(Opening opening, int seed)
    {
        var random = new Random(seed);
        var situation = From(opening.White);
        // Each player's own tools, one rally being one piece of work.
        Hand[] hands = [new(_mine, new(_mine), new(_mine, _judge)), new(_theirs, new(_theirs), new(_theirs, new(_mine.Player)))];
        for (var n = 0; n < MostStrokes; n++)
        {
            var (context, bench, _) = hands[n % 2];
            var stroke = n == 0 ? opening.Stroke : Chosen(hands[n % 2], situation);
            if (stroke is not { } s)
                return n % 2 == 1;
            var reach = Reach.Of(situation.Layout, s, context.Player);
            var played = bench.Play(situation, s, StrokeError.Draw(random, context.Player.Skill.Times(reach.ErrorFactor)), Ball.Black);
            if (played.Ruling.IsFoul)
                return n % 2 == 1;
            if (played.Ruling.Points > 0)
                return n % 2 == 0;
            situation = played.Leaves;
        }
        // So evenly matched that it goes on: a toss.
        return random.Next(2) == 0;
    }

    /// <summary>What a player of a rally needs.</summary>
    private sealed record Hand(SearchContext Context, Bench Bench, SafetyStrokes Strokes);

    private Stroke? Chosen(Hand hand, Situation situation)
    {
        var (context, bench, strokes) = hand;
        var lines = bench.LinesOf(situation.Layout);
        if (context.Worth.Of(situation, lines).Chance >= GoesForIt && new ShotSearch(context).Glance(bench, situation) is { } pot)
            return pot.Stroke;
        if (strokes.Glance(bench, situation) is { } safety)
            return safety.Stroke;
        // Nothing straight: the plain aim off one cushion.
        var (white, black) = (situation.Layout.White.At, situation.Layout.Balls[1].At);
        foreach (var order in MirrorAim.Orders(2))
            if (MirrorAim.Of(white, black, order, _shape) is { } aim)
                return new(aim.AimDegrees, 0, 0, 5, 0);
        return null;
    }
}
