using DeepBaize.Core.Advice.Position;
using DeepBaize.Core.Geometry;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;

namespace DeepBaize.Core.Search;

/// <summary>A pot that is played for.</summary>
/// <param name="Nominated">The ball it is played for: the colour, or the free ball, that is named.</param>
public sealed record Target(Pot Pot, Ball Nominated, Cut Cut);

/// <summary>How a stroke is likely to come out, 0–1.</summary>
/// <param name="Chance">That it scores.</param>
/// <param name="Foul">That it ends in a foul, the white going in above all.</param>
/// <param name="Holds">Of the times that it scores, the share after which the next pot is better than even.</param>
public readonly record struct ChoiceOdds(double Chance, double Foul, double Holds);

/// <summary>A stroke to pot a ball that is on, and what it is worth.</summary>
/// <param name="Stroke">As aimed.</param>
/// <param name="Value">What may be expected from here on, in the measure of the target (<see cref="Worth"/>).</param>
/// <param name="Gain">What the stroke itself makes of that if it scores.</param>
/// <param name="Outcome">If it goes as meant.</param>
/// <param name="Next">What the table is worth that it leaves then.</param>
public sealed record Choice(
    Target Target,
    Stroke Stroke,
    Reach Reach,
    ChoiceOdds Odds,
    double Value,
    double Gain,
    Played Outcome,
    Quality Next
)
{
    /// <summary>What the white does after its first contact.</summary>
    public required Route Route { get; init; }

    public Pot Pot => Target.Pot;

    public Ball Nominated => Target.Nominated;

    /// <summary>That it scores, 0–1.</summary>
    public double Chance => Odds.Chance;

    /// <summary>The table if it goes as meant.</summary>
    public Situation Leaves => Outcome.Leaves;
}

/// <summary>
/// Chooses the stroke to play from a situation. A pipeline: pots on → strokes on a grid, played without error → sifted with errors →
/// refined → deepened by what would be played next → judged by a larger sample. See docs/planning.md.
/// </summary>
public sealed class ShotSearch(SearchContext context)
{
    // A pot less likely than this, or than this share of the likeliest, is not tried.
    private const double LeastChance = 0.02,
        LeastShare = 0.15;

    // Where no straight pot is this likely, plants and doubles are looked at too.
    private const double PoorChance = 0.35,
        LeastPlant = 0.1;

    /// <summary>A quick estimate counts as so many strokes played.</summary>
    private const int EstimateWeighs = 14;

    /// <summary>Strokes for the same pot that leave the white nearer than this to one another, at a like pace, are one; m.</summary>
    private const double SamePlace = 0.04,
        SamePace = 0.8;

    private const double BetterThanEven = 0.5;

    private static readonly StrokeError[] NoErrors = [];

    /// <summary>A pot that is on, with what does not depend on the stroke.</summary>
    private sealed record Candidate(Target Target, double Chance)
    {
        public Pot Pot => Target.Pot;

        public Cut Cut => Target.Cut;

        public Ball Nominated => Target.Nominated;
    }

    /// <summary>A stroke that was played without error.</summary>
    private sealed record Tried(Candidate Of, Stroke Stroke, Reach Reach, double Chance, double Value, Played Outcome, Quality Next)
    {
        /// <summary>Share of its value that it is ranked lower by, for not being simple.</summary>
        public double Penalty { get; init; }
    }

    /// <summary>What came of a stroke that was played with errors.</summary>
    private readonly record struct Sampled(double Value, double Chance, double Foul, double Holds);

    /// <summary>The best strokes, best first, none twice; empty if nothing is on.</summary>
    /// <param name="sifted">Told the first answer, before the long work.</param>
    public IReadOnlyList<Choice> Choose(Situation from, Effort effort, Action<IReadOnlyList<Choice>>? sifted = null)
    {
        var candidates = Candidates(from, effort, allKinds: true);
        if (candidates.Count == 0)
            return [];
        var columns = candidates.SelectMany(c => Columns(effort).Select(column => (Candidate: c, column.Height, column.Side))).ToList();
        List<Tried> tried =
        [
            .. context
                .InParallel(
                    columns.Count,
                    (bench, i) => Column(bench, from, columns[i].Candidate, columns[i].Height, columns[i].Side, effort)
                )
                .SelectMany(t => t),
        ];

        var errors = Errors(effort.Samples, 11);
        var distinct = Distinct(tried, effort.Sifted, perPot: Math.Max(6, effort.Sifted / 4));
        var values = context.InParallel(distinct.Count, (bench, i) => Sample(bench, from, distinct[i], errors));
        List<(Tried Tried, Sampled Sampled)> ranked = [.. distinct.Zip(values).OrderByDescending(r => r.Second.Value)];
        if (ranked.Count == 0)
            return [];
        sifted?.Invoke([.. ranked.Take(3).Select(r => ChoiceOf(from, r.Tried, r.Sampled))]);

        // The best of each pot first, so that no idea is lost for want of room.
        var seeds = ranked
            .GroupBy(r => r.Tried.Of.Pot)
            .SelectMany(g => g.Take(4))
            .OrderByDescending(r => r.Sampled.Value)
            .Take(effort.Refined)
            .ToList();
        if (seeds.Count > 0)
        {
            var refined = context.InParallel(seeds.Count, (bench, i) => Refine(bench, from, seeds[i].Tried, seeds[i].Sampled, errors));
            ranked = [.. refined.OrderByDescending(r => r.Sampled.Value)];
        }
        if (effort.Deepened > 0)
        {
            var deep = Apart(ranked, effort.Deepened);
            var deepErrors = Errors(effort.DeepSamples, 23);
            // One piece of work a place where the white may stop, so that the cores are shared evenly.
            var after = context.InParallel(
                deep.Count * effort.DeepSamples,
                (bench, k) => Deep(bench, from, deep[k / effort.DeepSamples].Tried, deepErrors[k % effort.DeepSamples])
            );
            ranked =
            [
                .. deep.Select(
                        (r, i) =>
                            (r.Tried, Sampled: Tally(r.Tried, [.. after.Skip(i * effort.DeepSamples).Take(effort.DeepSamples)], r.Sampled))
                    )
                    .OrderByDescending(r => r.Sampled.Value),
            ];
        }
        if (effort.Final > 0)
        {
            var finalErrors = Errors(effort.Final, 37);
            var final = context.InParallel(ranked.Count, (bench, i) => Sample(bench, from, ranked[i].Tried, finalErrors));
            // The value as found by looking ahead, with the chance as found by the larger sample.
            ranked =
            [
                .. ranked
                    .Select((r, i) => (r.Tried, Sampled: final[i] with { Value = Rescaled(r.Sampled, final[i].Chance, final[i].Foul) }))
                    .OrderByDescending(r => r.Sampled.Value),
            ];
        }
        return [.. ranked.Select(r => ChoiceOf(from, r.Tried, r.Sampled))];
    }

    /// <summary>What would be played from here by a quick look; null if nothing is on. In one thread.</summary>
    public Choice? Glance(Bench bench, Situation from)
    {
        var effort = Effort.Glance;
        var tried = new List<Tried>();
        foreach (var candidate in Candidates(from, effort, allKinds: false, bench))
            foreach (var (height, side) in Columns(effort))
                tried.AddRange(Column(bench, from, candidate, height, side, effort));
        var errors = Errors(effort.Samples, 5);
        Choice? best = null;
        foreach (var one in Distinct(tried, effort.Sifted, effort.Sifted))
        {
            var sampled = Sample(bench, from, one, errors);
            if (best is null || sampled.Value > best.Value)
                best = ChoiceOf(from, one, sampled);
        }
        return best;
    }

    // ---- Pots on ---------------------------------------------------------------------------------------------------

    private List<Candidate> Candidates(Situation from, Effort effort, bool allKinds, Bench? bench = null)
    {
        var (layout, frame) = (from.Layout, from.Frame);
        if (frame.IsOver)
            return [];
        var lines = bench?.LinesOf(layout) ?? new PotLines(layout, context.Shape);
        var found = new List<(Candidate Candidate, double Value)>();
        foreach (var line in lines.Lines)
        {
            var ball = lines.BallIn(line.Slot);
            if (!frame.MayPlay(ball) || lines.From(line, layout.White.At, context.Player.Skill) is not { } pot || pot.Chance < LeastChance)
                continue;
            var cut = Cut.Of(layout, new(line.Slot, line.Pocket), context.Shape);
            if (cut.CanBeAimed)
                found.Add((new(new(cut.Pot, ball, cut), pot.Chance), context.Worth.Promise(from, lines, pot)));
        }
        var likeliest = found.Count == 0 ? 0 : found.Max(f => f.Candidate.Chance);
        List<Candidate> best =
        [
            .. found
                .Where(f => f.Candidate.Chance >= LeastShare * likeliest)
                .OrderByDescending(f => f.Value)
                .Take(effort.Pots)
                .Select(f => f.Candidate),
        ];
        if (allKinds && likeliest < PoorChance)
            foreach (var option in TableReading.Read(layout, new(0, 0, 0, 4, 0), context.Player, context.Shape, context.Cancel))
            {
                var (struck, potted) = (layout.Balls[option.Cut.Pot.Struck].Ball, layout.Balls[option.Cut.Pot.Slot].Ball);
                // Of a plant both balls must be on: reds, then.
                if (
                    option.Cut.Kind == PotKind.Direct
                    || option.Chance < LeastPlant
                    || !frame.On.Includes(struck)
                    || !frame.On.Includes(potted)
                    || (struck != potted && !(struck.IsRed && potted.IsRed))
                )
                    continue;
                if (best.Count(b => b.Cut.Kind != PotKind.Direct) < 3)
                    best.Add(new(new(option.Cut.Pot, potted, option.Cut), option.Chance));
            }
        return best;
    }

    // ---- Strokes, played without error -----------------------------------------------------------------------------

    private IEnumerable<(double Height, double Side)> Columns(Effort effort)
    {
        foreach (var height in effort.Heights)
            yield return (height, 0);
        if (context.Preferences.PlainOnly)
            yield break;
        foreach (var side in effort.Sides)
            foreach (var height in effort.SideHeights)
                yield return (height, side);
    }

    /// <summary>One height and side of the tip at all paces, from the softest.</summary>
    private List<Tried> Column(Bench bench, Situation from, Candidate candidate, double height, double side, Effort effort)
    {
        var tries = new List<Tried>();
        var trial = new PotTrial(from.Layout, candidate.Cut, context.Shape);
        double? near = null;
        for (var pace = Effort.Softest; pace <= Effort.Hardest + 1e-9; pace += effort.PaceStep)
            if (Try(bench, trial, from, candidate, new(candidate.Cut.AimDegrees, side, height, pace, 0), ref near) is { } tried)
                tries.Add(tried);
        return tries;
    }

    /// <summary>Aims a stroke and plays it; null if it has no aim, or does not score even without error.</summary>
    private Tried? Try(Bench bench, PotTrial trial, Situation from, Candidate candidate, Stroke stroke, ref double? near)
    {
        context.Cancel.ThrowIfCancellationRequested();
        var reach = Reach.Of(from.Layout, stroke, context.Player);
        stroke = stroke with { ElevationDegrees = reach.ElevationDegrees };
        if (PotAim.Find(trial, candidate.Cut, stroke, near, PotAim.Roughly) is not { } aim)
            return null;
        near = aim;
        stroke = stroke with { AimDegrees = aim };
        var played = bench.Play(from, stroke, default, candidate.Nominated);
        if (played.Ruling.Points == 0 || bench.Simulator.PocketOf(candidate.Pot.Slot) != candidate.Cut.Pocket)
            return null;
        var chance = candidate.Chance;
        if (reach.ErrorFactor > 1 && candidate.Cut.Kind == PotKind.Direct)
            chance = PotLines.Chance(
                Angle.FromDegrees(candidate.Cut.OpeningDegrees / 2),
                Angle.FromDegrees(candidate.Cut.CutDegrees).Abs,
                candidate.Cut.CueBallDistance,
                context.Player.Skill.Times(reach.ErrorFactor)
            );
        var next = bench.Judge(played.Leaves);
        var value = chance * (context.Worth.Gain(from.Frame, played.Ruling.NextFrame) + next.Value) - (1 - chance) * context.Worth.MissCost;
        var penalty = PenaltyOf(stroke, Kisses.First(bench.Record, candidate.Pot) is not null);
        return new(candidate, stroke, reach, chance, value - penalty * Math.Abs(value), played, next) { Penalty = penalty };
    }

    // Of strokes that are worth nearly the same a player takes the simpler one. Shares of the value: common practice, no source.
    private const double PenaltyOfPace = 0.004,
        EasyPace = 5,
        PenaltyOfSide = 0.01,
        PenaltyOfCannon = 0.005,
        CannonToAvoid = 0.3;

    private double PenaltyOf(in Stroke stroke, bool runsIntoBall) =>
        PenaltyOfPace * Math.Max(0, stroke.Pace - EasyPace)
        + PenaltyOfSide * Math.Abs(stroke.SideTips)
        + (
            !runsIntoBall ? 0
            : context.Preferences.AvoidCannons ? CannonToAvoid
            : PenaltyOfCannon
        );

    // ---- With errors -----------------------------------------------------------------------------------------------

    private StrokeError[] Errors(int count, int seed)
    {
        if (count == 0)
            return NoErrors;
        var random = new Random(seed);
        return [.. Enumerable.Range(0, count).Select(_ => StrokeError.Draw(random, context.Player.Skill))];
    }

    /// <summary>One outcome of a stroke.</summary>
    private readonly record struct Drawn(bool Scores, bool Foul, double Value, bool Holds);

    private Drawn Draw(Bench bench, Situation from, Tried tried, in StrokeError error, out Played played)
    {
        var factor = tried.Reach.ErrorFactor;
        var able =
            factor == 1
                ? error
                : error with
                {
                    TurnDegrees = factor * error.TurnDegrees,
                    Side = factor * error.Side,
                    Height = factor * error.Height,
                };
        played = bench.Play(from, tried.Stroke, able, tried.Of.Nominated);
        var scores = played.Ruling.Points > 0;
        if (!scores)
            return new(false, played.Ruling.IsFoul, 0, false);
        var next = bench.Judge(played.Leaves);
        return new(
            true,
            false,
            context.Worth.Gain(from.Frame, played.Ruling.NextFrame) + next.Value,
            next.Chance >= BetterThanEven || played.Ruling.NextFrame.IsOver
        );
    }

    private Sampled Sample(Bench bench, Situation from, Tried tried, StrokeError[] errors)
    {
        var drawn = new Drawn[errors.Length];
        for (var i = 0; i < errors.Length; i++)
            drawn[i] = Draw(bench, from, tried, errors[i], out _);
        return Tally(tried, drawn, null);
    }

    /// <summary>The same with what would be played next, instead of what the place looks like.</summary>
    private Drawn Deep(Bench bench, Situation from, Tried tried, in StrokeError error)
    {
        var drawn = Draw(bench, from, tried, error, out var played);
        if (!drawn.Scores || played.Ruling.NextFrame.IsOver)
            return drawn;
        return drawn with
        {
            Value = context.Worth.Gain(from.Frame, played.Ruling.NextFrame) + Math.Max(0, Glance(bench, played.Leaves)?.Value ?? 0),
        };
    }

    /// <param name="known">Its chance, from more samples than these; null: estimated from these and the quick estimate.</param>
    private Sampled Tally(Tried tried, Drawn[] drawn, Sampled? known)
    {
        var (scores, fouls, holds, value) = (0, 0, 0, 0.0);
        foreach (var d in drawn)
        {
            if (d.Foul)
                fouls++;
            if (!d.Scores)
                continue;
            scores++;
            value += d.Value;
            if (d.Holds)
                holds++;
        }
        var weight = drawn.Length >= 100 ? 0 : EstimateWeighs;
        var chance = known?.Chance ?? (weight * tried.Chance + scores) / (weight + drawn.Length);
        var foul = known?.Foul ?? (double)fouls / drawn.Length;
        var mean = scores == 0 ? 0 : value / scores;
        var (worth, penalty) = (ValueOf(chance, foul, mean), tried.Penalty);
        return new(worth - penalty * Math.Abs(worth), chance, foul, scores == 0 ? 0 : (double)holds / scores);
    }

    private double ValueOf(double chance, double foul, double mean) =>
        chance * mean - (1 - chance) * context.Worth.MissCost - foul * context.Worth.FoulCost;

    private double Rescaled(in Sampled sampled, double chance, double foul)
    {
        var worth = context.Worth;
        var mean =
            sampled.Chance <= 0
                ? 0
                : (sampled.Value + (1 - sampled.Chance) * worth.MissCost + sampled.Foul * worth.FoulCost) / sampled.Chance;
        return ValueOf(chance, foul, mean);
    }

    /// <summary>Small changes of height, pace and side that better the value, with the same errors.</summary>
    private (Tried Tried, Sampled Sampled) Refine(Bench bench, Situation from, Tried seed, Sampled sampled, StrokeError[] errors)
    {
        var trial = new PotTrial(from.Layout, seed.Of.Cut, context.Shape);
        var best = (Tried: seed, Sampled: sampled);
        foreach (var scale in (ReadOnlySpan<double>)[1, 0.5])
        {
            var start = best.Tried.Stroke;
            foreach (
                var (up, harder, right) in (ReadOnlySpan<(double, double, double)>)
                    [(0, 1, 0), (0, -1, 0), (1, 0, 0), (-1, 0, 0), (0, 0, 1), (0, 0, -1)]
            )
            {
                if (right != 0 && context.Preferences.PlainOnly)
                    continue;
                var stroke = start with
                {
                    HeightTips = start.HeightTips + 0.2 * scale * up,
                    Pace = start.Pace + 0.3 * scale * harder,
                    SideTips = start.SideTips + 0.3 * scale * right,
                };
                if (Tip.Margin(stroke.SideTips, stroke.HeightTips) < 0.1 || stroke.Pace is < Effort.Softest or > Effort.Hardest)
                    continue;
                double? near = start.AimDegrees;
                if (
                    Try(bench, trial, from, seed.Of, stroke, ref near) is not { } tried
                    || tried.Value < best.Tried.Value - 0.15 * Math.Abs(best.Tried.Value)
                )
                    continue;
                var value = Sample(bench, from, tried, errors);
                if (value.Value > best.Sampled.Value)
                    best = (tried, value);
            }
        }
        return best;
    }

    // ---- Distinct --------------------------------------------------------------------------------------------------

    private static List<Tried> Distinct(List<Tried> tried, int most, int perPot)
    {
        var kept = new List<Tried>();
        foreach (var one in tried.OrderByDescending(t => t.Value))
        {
            if (kept.Count == most)
                break;
            if (kept.All(k => !IsSame(k, one)) && kept.Count(k => k.Of == one.Of) < perPot)
                kept.Add(one);
        }
        return kept;
    }

    private static bool IsSame(Tried a, Tried b)
    {
        if (a.Of != b.Of || Math.Abs(a.Stroke.Pace - b.Stroke.Pace) > SamePace)
            return false;
        return a.Outcome.Leaves.Layout.White.At.DistanceTo(b.Outcome.Leaves.Layout.White.At) < SamePlace;
    }

    /// <summary>The best, no two the same after refining.</summary>
    private static List<(Tried Tried, Sampled Sampled)> Apart(List<(Tried Tried, Sampled Sampled)> ranked, int most)
    {
        var kept = new List<(Tried Tried, Sampled Sampled)>();
        foreach (var one in ranked)
            if (kept.Count < most && kept.All(k => !IsSame(k.Tried, one.Tried)))
                kept.Add(one);
        return kept;
    }

    private Choice ChoiceOf(Situation from, Tried t, Sampled s) =>
        new(
            t.Of.Target,
            t.Stroke,
            t.Reach,
            new(s.Chance, s.Foul, s.Holds),
            s.Value,
            context.Worth.Gain(from.Frame, t.Outcome.Ruling.NextFrame),
            t.Outcome,
            t.Next
        )
        {
            Route = RouteOf(from, t),
        };

    private Route RouteOf(Situation from, Tried t)
    {
        var simulator = new Simulator(context.Shape);
        var record = new ShotRecord();
        t.Stroke.Play(simulator, from.Layout, record);
        return Route.Of(record);
    }
}
