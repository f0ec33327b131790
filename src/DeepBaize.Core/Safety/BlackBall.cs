using DeepBaize.Core.Escapes;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Planning;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Shots;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Safety;

/// <summary>Kinds of first stroke at the re-spotted black.</summary>
public enum OpeningKind
{
    /// <summary>The older one: the black goes up and down the table's length, the white stays in baulk.</summary>
    Lengthwise,
    /// <summary>The newer one: the black to one side cushion, the white across to the other.</summary>
    Across,
    /// <summary>Whatever else the search finds.</summary>
    Other,
}

/// <summary>An opening, judged on this table at this skill.</summary>
/// <param name="WhiteX">Where the white is placed in the D, m.</param>
/// <param name="WhiteY">The same, across.</param>
/// <param name="Safe">Chance that no pot better than even and no double better than one in four is left.</param>
/// <param name="PotLeft">Chance that such a pot is left.</param>
/// <param name="DoubleLeft">Chance that such a double is left.</param>
/// <param name="Tight">Chance that the white is tight on a cushion.</param>
/// <param name="Foul">Chance of a foul, which loses.</param>
/// <param name="Wins">Share of rallies that the one who plays it wins.</param>
public sealed record Opening(
    OpeningKind Kind, double WhiteX, double WhiteY, Stroke Stroke, double Fullness, Route Route, double Safe, double PotLeft, double DoubleLeft, double Tight, double Foul, double Wins, int Rallies,
    IReadOnlyList<PathPoint> WhitePath, IReadOnlyList<PathPoint> BlackPath);

/// <summary>How far the comparison is.</summary>
public sealed record BlackBallProgress(long Examined, double Share, IReadOnlyList<Opening> Openings);

/// <summary>The black-ball game: the openings compared, and rallies played out to win or loss by both players' skill. See docs/safety.md.</summary>
public sealed class BlackBall
{
    private const int JudgedOfKind = 3, Samples = 150, Doubled = 25, Rallies = 60, MostStrokes = 24;
    private const double BetterThanEven = 0.5, WorthOfDouble = 0.25;

    /// <summary>A player goes for the black from this chance up: a miss loses about as often as it does not. Common practice, no source.</summary>
    private const double GoesForIt = 0.5;

    private readonly PlanContext _mine, _theirs;
    private readonly TableShape _shape;
    private readonly LeaveJudge _judge;
    private readonly Skill _rival;
    private readonly Player _player;

    private BlackBall(PlanContext mine, PlanContext theirs, Skill rival, Player player, TableShape shape) =>
        (_mine, _theirs, _rival, _player, _shape, _judge) = (mine, theirs, rival, player, shape, new(rival, player));

    /// <summary>The best opening of each kind, the one that wins most first.</summary>
    /// <exception cref="OperationCanceledException">Cancelled.</exception>
    public static IReadOnlyList<Opening> Compare(Skill skill, Skill rival, Player player, TableShape shape, FairGate? gate = null, IProgress<BlackBallProgress>? progress = null, CancellationToken cancel = default)
    {
        PlanContext Of(Skill s) => new(s, player, shape, PlanPreferences.Default, gate ?? FairGate.Shared, cancel);
        return new BlackBall(Of(skill), Of(rival), rival, player, shape).Run(progress);
    }

    /// <summary>Places for the white: across the D, on the line and behind it.</summary>
    private static readonly (double X, double Y)[] Places =
        [.. new[] { -0.25, -0.15, -0.05, 0.05, 0.15, 0.25 }.Select(y => (BaulkLineX - 0.01, Width / 2 + y)), (BaulkLineX - 0.18, Width / 2 - 0.1), (BaulkLineX - 0.18, Width / 2 + 0.1)];

    private static Situation From(double x, double y) =>
        Situation.Create(Layout.OfRest([new(Ball.White, x, y), new(Ball.Black, Spot(Ball.Black).X, Spot(Ball.Black).Y)]), BallOn.Black);

    private sealed record Tried(Situation From, OpeningKind Kind, double Offset, Stroke Stroke, double Worth);

    private IReadOnlyList<Opening> Run(IProgress<BlackBallProgress>? progress)
    {
        var search = new SafetySearch(_mine, _judge);
        List<Tried> tried = [.. _mine.InParallel(Places.Length, (bench, i) => Play(bench, search, From(Places[i].X, Places[i].Y))).SelectMany(t => t)];
        progress?.Report(new(_mine.Examined, 0.2, []));
        List<Tried> candidates = [.. tried.GroupBy(t => t.Kind).SelectMany(g => g.OrderBy(t => t.Worth).DistinctBy(t => (t.From.Layout.White, t.Offset)).Take(JudgedOfKind))];
        var openings = _mine.InParallel(candidates.Count, (bench, i) => Judge(bench, candidates[i])).ToList();
        // Of each kind the one that leaves least goes on.
        openings = [.. openings.GroupBy(o => o.Kind).Select(g => g.MaxBy(o => o.Safe - o.Foul)!)];
        progress?.Report(new(_mine.Examined, 0.5, openings));
        for (var k = 0; k < openings.Count; k++)
        {
            var opening = openings[k];
            var wins = _mine.InParallel(Rallies, (bench, i) => Rally(opening, 300 + i)).Count(w => w);
            openings[k] = opening with { Wins = (double)wins / Rallies, Rallies = Rallies };
            progress?.Report(new(_mine.Examined, 0.5 + 0.5 * (k + 1) / openings.Count, openings));
        }
        return [.. openings.OrderByDescending(o => o.Wins).ThenByDescending(o => o.Safe)];
    }

    private List<Tried> Play(Bench bench, SafetySearch search, Situation from)
    {
        var tried = new List<Tried>();
        foreach (var (offset, stroke) in search.Strokes(from, 1))
        {
            var played = bench.Play(from, stroke, default, Ball.Black);
            if (played.Ruling.IsFoul || played.Ruling.Points > 0) continue;
            tried.Add(new(from, KindOf(bench), offset, stroke, _judge.Of(played.After, bench.LinesOf(played.After.Layout)).Worth));
        }
        return tried;
    }

    private static OpeningKind KindOf(Bench bench)
    {
        var (white, black) = ((X: bench.Simulator.X(0), Y: bench.Simulator.Y(0)), (X: bench.Simulator.X(1), Y: bench.Simulator.Y(1)));
        // Down past the middle after the top cushion, with the white behind the baulk line or near it.
        if (black.X < Length / 2 && white.X < BaulkLineX + 0.3) return OpeningKind.Lengthwise;
        var toSide = Math.Min(black.Y, Width - black.Y) - BallRadius;
        return toSide < 0.15 && (black.Y - Width / 2) * (white.Y - Width / 2) < 0 && Math.Min(white.Y, Width - white.Y) < 0.35 ? OpeningKind.Across : OpeningKind.Other;
    }

    private Opening Judge(Bench bench, Tried tried)
    {
        var reach = Reach.Of(tried.From.Layout, tried.Stroke, _player);
        var (skill, random) = (_mine.Skill.Times(reach.ErrorFactor), new Random(13));
        var (pots, doubles, looked, tight, fouls) = (0, 0, 0, 0, 0);
        for (var i = 0; i < Samples; i++)
        {
            var played = bench.Play(tried.From, tried.Stroke, StrokeError.Draw(random, skill), Ball.Black);
            if (played.Ruling.IsFoul)
            {
                fouls++;
                continue;
            }
            if (played.Ruling.After.IsOver) continue;
            var leave = _judge.Of(played.After, bench.LinesOf(played.After.Layout));
            if (leave.IsTight) tight++;
            if (leave.LeavesPot) pots++;
            else if (looked < Doubled)
            {
                looked++;
                if (TableReading.Doubles(played.After.Layout, _rival, _player, _shape) > WorthOfDouble) doubles++;
            }
        }
        var (potLeft, foul) = ((double)pots / Samples, (double)fouls / Samples);
        var doubleLeft = looked == 0 ? 0 : (double)doubles / looked * (1 - potLeft - foul);
        bench.Play(tried.From, tried.Stroke, default, Ball.Black);
        var paths = ShotPath.Points(bench.Record, 2, ShotPath.Drawn);
        return new(tried.Kind, tried.From.Layout.White.X, tried.From.Layout.White.Y, tried.Stroke, 1 - Math.Abs(tried.Offset), Route.Of(bench.Record), 1 - potLeft - doubleLeft - foul, potLeft, doubleLeft,
            (double)tight / Samples, foul, 0, 0, paths[0], paths[1]);
    }

    /// <summary>A rally from an opening to its end; whether the one who opened has won. A foul, and the black, end it.</summary>
    private bool Rally(Opening opening, int seed)
    {
        var random = new Random(seed);
        var situation = From(opening.WhiteX, opening.WhiteY);
        // Each player's own tools, one rally being one piece of work.
        var tools = new[] { (Context: _mine, Bench: new Bench(_mine), Search: new SafetySearch(_mine, _judge)), (Context: _theirs, Bench: new Bench(_theirs), Search: new SafetySearch(_theirs, new(_mine.Skill, _player))) };
        for (var n = 0; n < MostStrokes; n++)
        {
            var (context, bench, search) = tools[n % 2];
            var stroke = n == 0 ? opening.Stroke : Chosen(context, bench, search, situation);
            if (stroke is not { } s) return n % 2 == 1;
            var reach = Reach.Of(situation.Layout, s, _player);
            var played = bench.Play(situation, s, StrokeError.Draw(random, context.Skill.Times(reach.ErrorFactor)), Ball.Black);
            if (played.Ruling.IsFoul) return n % 2 == 1;
            if (played.Ruling.Points > 0) return n % 2 == 0;
            situation = played.After;
        }
        // So evenly matched that it goes on: a toss.
        return random.Next(2) == 0;
    }

    private Stroke? Chosen(PlanContext context, Bench bench, SafetySearch search, Situation situation)
    {
        var lines = bench.LinesOf(situation.Layout);
        if (context.Worth.Of(situation, lines).Chance >= GoesForIt && new ShotSearch(context).Glance(bench, situation) is { } pot) return pot.Stroke;
        if (search.Glance(bench, situation) is { } safety) return safety.Stroke;
        // Nothing straight: the plain aim off one cushion.
        var (white, black) = (situation.Layout.White, situation.Layout.Balls[1]);
        foreach (var order in MirrorAim.Orders(2))
            if (MirrorAim.Of((white.X, white.Y), (black.X, black.Y), order, _shape) is { } aim) return new(aim.AimDegrees, 0, 0, 5, 0);
        return null;
    }
}
