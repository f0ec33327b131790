using DeepBaize.Core.Geometry;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Sampling;
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
/// <param name="Miscue">That the tip slips off; not yet known of what has only been chosen.</param>
public readonly record struct ChoiceOdds(Estimate Chance, Estimate Foul, Estimate Holds, Estimate? Miscue = null);

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
    Estimate Value,
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
    public double Chance => Odds.Chance.Value;

    /// <summary>The table if it goes as meant.</summary>
    public Situation Leaves => Outcome.Leaves;
}

/// <summary>
/// Chooses the stroke to play from a situation. A pipeline: pots on → strokes on a grid, played without error → sifted with errors →
/// refined → deepened by what would be played next → told by strokes that had no part in the choice. See docs/planning.md.
/// </summary>
public sealed class ShotSearch(SearchContext context)
{
    // A pot less likely than this, or than this share of the likeliest, is not tried.
    private const double LeastChance = 0.02,
        LeastShare = 0.15;

    // Where no straight pot is this likely, plants and doubles are looked at too.
    private const double PoorChance = 0.35,
        LeastPlant = 0.1;

    /// <summary>Of how often the ball goes in a quick estimate says as much as so many strokes played.</summary>
    private const int EstimateWeighs = 40;

    /// <summary>
    /// Strokes for the same pot that leave the white nearer than this to one another, m, and are less than so many times as fast, are one.
    /// </summary>
    private const double SamePlace = 0.04,
        SameSpeed = 1.3;

    private const double BetterThanEven = 0.5;

    private static readonly ErrorStream Sifting = ErrorStream.Named("shots: sift"),
        Weighing = ErrorStream.Named("shots: weigh"),
        Deepening = ErrorStream.Named("shots: deepen"),
        Glancing = ErrorStream.Named("shots: glance"),
        Telling = ErrorStream.Named("shots: tell"),
        TellingDeep = ErrorStream.Named("shots: tell what follows"),
        TellingGlance = ErrorStream.Named("shots: tell the next");

    /// <summary>A pot that is on, with what does not depend on the stroke.</summary>
    private sealed record Candidate(Target Target, double Chance)
    {
        public Pot Pot => Target.Pot;

        public Cut Cut => Target.Cut;

        public Ball Nominated => Target.Nominated;

        /// <summary>Aimed at a part of the pocket beside this one; null if that is outside it.</summary>
        public Candidate? InPart(double beside, Layout layout, TableShape shape)
        {
            var part = Pot.Part + beside;
            if (Math.Abs(part) > 1)
                return null;
            var cut = Cut.Of(layout, Pot with { Part = part }, shape);
            return cut.CanBeAimed ? this with { Target = new(cut.Pot, Nominated, cut) } : null;
        }
    }

    /// <summary>A stroke that was played without error.</summary>
    private sealed record Tried(Candidate Of, Stroke Stroke, Reach Reach, double Chance, double Value, Played Outcome, Quality Next)
    {
        /// <summary>Share of its value that it is ranked lower by, for not being simple.</summary>
        public double Penalty { get; init; }
    }

    /// <summary>A stroke with what comes of it when it is played with the errors that choose.</summary>
    /// <param name="Mean">Of what it comes to when it scores.</param>
    /// <param name="Doubt">By so much it is ranked lower for asking for more than it has been shown to be worth.</param>
    private sealed record Ranked(Tried Tried, double Value, double Chance, double Foul, double Holds, double Mean, double Doubt = 0);

    /// <summary>The best strokes, best first, none twice; empty if nothing is on.</summary>
    /// <param name="sifted">Told the first answer, before the long work.</param>
    public IReadOnlyList<Choice> Choose(Situation from, Effort effort, Action<IReadOnlyList<Choice>>? sifted = null)
    {
        var ranked = Sifted(from, OnGrid(from, Candidates(from, effort, allKinds: true), effort), effort);
        if (ranked.Count == 0)
            return [];
        sifted?.Invoke([.. ranked.Take(3).Select(r => ChoiceOf(from, r))]);
        ranked = Refined(from, ranked, effort);
        ranked = Weighed(from, ranked, effort);
        ranked = Deepened(from, ranked, effort);
        return Told(from, [.. OnePotEachFirst(ranked, effort).Take(effort.Told)], effort);
    }

    /// <summary>What would be played from here by a quick look; null if nothing is on. In one thread.</summary>
    /// <param name="isTold">Whether its value is to be told by strokes that had no part in the choice.</param>
    public Choice? Glance(Bench bench, Situation from, bool isTold = false)
    {
        var effort = Effort.Glance.Within(context);
        var tried = new List<Tried>();
        foreach (var candidate in Candidates(from, effort, allKinds: false, bench))
            foreach (var (height, side) in Columns(effort))
                tried.AddRange(Column(bench, from, candidate, height, side, effort));
        var errors = Glancing.Set(effort.Samples);
        var best = Distinct(tried, effort.Sifted, effort.Sifted).Select(t => Sample(bench, from, t, errors)).MaxBy(r => r.Value);
        if (best is not null && isTold)
            best = Sample(bench, from, best.Tried, TellingGlance.Set(effort.Samples));
        return best is null ? null : ChoiceOf(from, best);
    }

    // ---- Stages ----------------------------------------------------------------------------------------------------

    private List<Tried> OnGrid(Situation from, List<Candidate> candidates, Effort effort)
    {
        var columns = candidates.SelectMany(c => Columns(effort).Select(column => (Candidate: c, column.Height, column.Side))).ToList();
        return
        [
            .. context
                .InParallel(
                    columns.Count,
                    (bench, i) => Column(bench, from, columns[i].Candidate, columns[i].Height, columns[i].Side, effort)
                )
                .SelectMany(t => t),
        ];
    }

    private List<Ranked> Sifted(Situation from, List<Tried> tried, Effort effort)
    {
        var errors = Sifting.Set(effort.Samples);
        var distinct = Distinct(tried, effort.Sifted, perPot: Math.Max(6, effort.Sifted / 4));
        return
        [
            .. context.InParallel(distinct.Count, (bench, i) => Sample(bench, from, distinct[i], errors)).OrderByDescending(r => r.Value),
        ];
    }

    /// <summary>Small changes that better the value, with the errors that have sifted.</summary>
    private List<Ranked> Refined(Situation from, List<Ranked> ranked, Effort effort)
    {
        var errors = Sifting.Set(effort.Samples);
        // The best of each pot first, so that no idea is lost for want of room.
        var seeds = ranked
            .GroupBy(r => r.Tried.Of.Pot)
            .SelectMany(g => g.Take(4))
            .OrderByDescending(r => r.Value)
            .Take(effort.Refined)
            .ToList();
        if (seeds.Count == 0)
            return ranked;
        var refined = context.InParallel(seeds.Count, (bench, i) => Refine(bench, from, seeds[i], errors, effort));
        return Distinctness.Distinct(refined.OrderByDescending(r => r.Value), (a, b) => IsSame(a.Tried, b.Tried));
    }

    /// <summary>
    /// The best anew, by more strokes of another stream: of many, the best by a few strokes are the lucky ones, and refinement follows
    /// their luck.
    /// </summary>
    private List<Ranked> Weighed(Situation from, List<Ranked> ranked, Effort effort)
    {
        if (effort.Weighed == 0)
            return ranked;
        var best = ranked.Take(Math.Max(1, 2 * effort.Deepened)).ToList();
        var errors = Weighing.Set(effort.Weighed);
        var weighed = context.InParallel(best.Count, (bench, i) => Doubted(Sample(bench, from, best[i].Tried, errors), errors.Length));
        return [.. weighed.OrderByDescending(r => r.Value)];
    }

    /// <summary>
    /// Side, and power beyond the easy, are played where they pay: a stroke with them is ranked lower by the standard error of its value,
    /// so that of strokes that cannot be told apart the plain one comes first. The less exact the player, the more that takes.
    /// </summary>
    private Ranked Doubted(Ranked r, int strokes)
    {
        var share = (r.Tried.Stroke.SideTips != 0 ? 1 : 0) + (r.Tried.Stroke.Pace > Skill.EasyPace ? 0.5 : 0);
        var error = Math.Sqrt(r.Chance * (1 - r.Chance) / (EstimateWeighs + strokes)) * (Math.Abs(r.Mean) + context.Worth.MissCost);
        return With(r with { Doubt = share * error }, r.Mean);
    }

    private List<Ranked> Deepened(Situation from, List<Ranked> ranked, Effort effort)
    {
        if (effort.Deepened == 0)
            return ranked;
        var deep = ranked.Take(effort.Deepened).ToList();
        var errors = Deepening.Set(effort.DeepSamples);
        // One piece of work a place where the white may stop, so that the cores are shared evenly.
        var after = context.InParallel(
            deep.Count * effort.DeepSamples,
            (bench, k) => Deep(bench, from, deep[k / effort.DeepSamples].Tried, errors[k % effort.DeepSamples])
        );
        var beyond = deep.Select((_, i) => BeyondOf([.. after.Skip(i * effort.DeepSamples).Take(effort.DeepSamples)])).ToList();
        // Of few places what stands out is mostly luck: as much of what they differ counts as is more than chance makes of it.
        var mean = beyond.Average(b => b.Mean);
        var apart = Math.Max(0, beyond.Average(b => (b.Mean - mean) * (b.Mean - mean)) - beyond.Average(b => b.Variance));
        double Told((double Mean, double Variance) b) => mean + (apart == 0 ? 0 : apart / (apart + b.Variance) * (b.Mean - mean));
        return [.. deep.Select((r, i) => With(r, r.Mean + Told(beyond[i]))).OrderByDescending(r => r.Value)];
    }

    /// <summary>By how much looking on is worth more than the places look, and the variance of that mean.</summary>
    private static (double Mean, double Variance) BeyondOf(List<Drawn> drawn)
    {
        var beyond = drawn.Where(d => d.Scores).Select(d => d.Beyond).ToList();
        if (beyond.Count == 0)
            return default;
        var mean = beyond.Average();
        return (mean, beyond.Sum(b => (b - mean) * (b - mean)) / beyond.Count / Math.Max(1, beyond.Count - 1));
    }

    /// <summary>The same stroke, coming to another mean when it scores.</summary>
    private Ranked With(Ranked r, double mean)
    {
        var worth = ValueOf(r.Chance, r.Foul, mean);
        return r with { Mean = mean, Value = worth - r.Tried.Penalty * Math.Abs(worth) - r.Doubt };
    }

    /// <summary>The best of each pot before the others of the same, if more than the best are asked for.</summary>
    private static IEnumerable<Ranked> OnePotEachFirst(List<Ranked> ranked, Effort effort) =>
        effort.Told == 1 ? ranked : ranked.GroupBy(r => r.Tried.Of.Pot).SelectMany(g => g.Take(3)).OrderByDescending(r => r.Value);

    /// <summary>Chances and value by errors that had no part in the choice; in the order of that choice.</summary>
    private List<Choice> Told(Situation from, List<Ranked> ranked, Effort effort)
    {
        if (effort.Final == 0)
            return [.. ranked.Select(r => ChoiceOf(from, r))];
        var told = context.InParallel(ranked.Count, (bench, i) => Tell(bench, from, ranked[i].Tried, effort.MostTold));
        var deep = context.InParallel(
            ranked.Count * effort.Final,
            (bench, k) => Deep(bench, from, ranked[k / effort.Final].Tried, TellingDeep.At(k % effort.Final), isTold: true)
        );
        return
        [
            .. ranked.Select(
                (r, i) =>
                {
                    var (value, scored) = (new Sums(), new Sums());
                    for (var k = 0; k < effort.Final; k++)
                    {
                        var drawn = deep[i * effort.Final + k];
                        value.Add(k, drawn.Scores ? drawn.Value : 0);
                        scored.Add(k, drawn.Scores);
                    }
                    // What a success is worth by looking on, times how often it comes, by many more strokes.
                    return ChoiceOf(from, r) with { Odds = told[i], Value = ValueOf(told[i], value.For(scored)) };
                }
            ),
        ];
    }

    private ChoiceOdds Tell(Bench bench, Situation from, Tried tried, int most)
    {
        const int first = 128;
        const double enough = 0.01;
        var (scores, fouls, holds, miscues) = (new Sums(), new Sums(), new Sums(), new Sums());
        var scatter = ScatterOf(bench, from, tried);
        for (var next = first; ; next *= 2)
        {
            for (var i = scores.Strokes; i < next; i++)
            {
                var error = scatter.Error(Telling.At(i));
                var drawn = Draw(bench, from, tried, error, out _);
                miscues.Add(i, error.IsMiscue);
                scores.Add(i, drawn.Scores);
                fouls.Add(i, drawn.Foul);
                holds.Add(i, drawn.Scores && drawn.Holds);
            }
            var odds = new ChoiceOdds(scores.Share, fouls.Share, holds.For(scores), miscues.Share);
            if (next >= most || (odds.Chance.Error <= enough && odds.Foul.Error <= enough))
                return odds;
        }
    }

    private Estimate ValueOf(in ChoiceOdds odds, in Estimate mean)
    {
        var (chance, foul, worth) = (odds.Chance, odds.Foul, context.Worth);
        return mean.Times(1, worth.MissCost).Times(chance).Minus(foul.Times(worth.FoulCost, worth.MissCost));
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
            if (cut.Fault == CutFault.None || (cut.CanBeAimed && effort.OffJaws))
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
            foreach (
                var option in TableReading.Read(
                    layout,
                    new(0, 0, 0, Pace.Medium, context.Player.NaturalElevation),
                    context.Player,
                    context.Shape,
                    context.Workers
                )
            )
            {
                var (struck, potted) = (layout.Balls[option.Cut.Pot.Struck].Ball, layout.Balls[option.Cut.Pot.Slot].Ball);
                // Of a plant both balls must be on: reds, then.
                if (
                    option.Cut.Kind == PotKind.Direct
                    || option.Chance.Value < LeastPlant
                    || !frame.On.Includes(struck)
                    || !frame.On.Includes(potted)
                    || (struck != potted && !(struck.IsRed && potted.IsRed))
                )
                    continue;
                if (best.Count(b => b.Cut.Kind != PotKind.Direct) < 3)
                    best.Add(new(new(option.Cut.Pot, potted, option.Cut), option.Chance.Value));
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
        var reach = Reach.Of(from.Layout, new(candidate.Cut.AimDegrees, side, height, Effort.Softest, 0), context.Player);
        foreach (var pace in effort.Paces)
            if (Try(bench, trial, from, candidate, reach, new(candidate.Cut.AimDegrees, side, height, pace, 0), ref near) is { } tried)
                tries.Add(tried);
        return tries;
    }

    /// <summary>Aims a stroke and plays it; null if it has no aim, or does not score even without error.</summary>
    private Tried? Try(Bench bench, PotTrial trial, Situation from, Candidate candidate, Reach reach, Stroke stroke, ref double? near)
    {
        context.Cancel.ThrowIfCancellationRequested();
        stroke = stroke with { ElevationDegrees = reach.ButtDegrees };
        if (PotAim.Find(trial, candidate.Cut, stroke, near, PotAim.Roughly) is not { } aim)
            return null;
        near = aim;
        stroke = stroke with { AimDegrees = aim };
        var played = bench.Play(from, stroke, default, candidate.Nominated);
        if (played.Ruling.Points == 0 || bench.Simulator.PocketOf(candidate.Pot.Slot) != candidate.Cut.Pocket)
            return null;
        var penalty = PenaltyOf(stroke, Kisses.First(bench.Record, candidate.Pot) is not null);
        var next = bench.Judge(played.Leaves);
        var chance = candidate.Cut.Kind == PotKind.Direct ? ChanceOf(bench, from, candidate.Cut, stroke, reach) : candidate.Chance;
        var value = chance * (context.Worth.Gain(from.Frame, played.Ruling.NextFrame) + next.Value) - (1 - chance) * context.Worth.MissCost;
        return new(candidate, stroke, reach, chance, value - penalty * Math.Abs(value), played, next) { Penalty = penalty };
    }

    /// <summary>The quick estimate with what this stroke adds to it: reach, power, and what side asks to be allowed for.</summary>
    private double ChanceOf(Bench bench, Situation from, in Cut cut, in Stroke stroke, in Reach reach)
    {
        var line = stroke.SideTips == 0 ? default : AimLine.Of(from.Layout, stroke, bench.Simulator, bench.Record);
        return QuickChance.Of(
            cut.Window,
            Angle.FromDegrees(cut.CutDegrees).Abs,
            cut.CueBallDistance,
            context.Player.Skill.Times(reach.ErrorFactor * Skill.GrowthAt(stroke.Pace)),
            Math.Abs(Angle.FromDegrees(line.AllowedDegrees).Radians) * cut.CueBallDistance
        );
    }

    // Of strokes that are worth nearly the same a player takes the simpler one. Shares of the value: common practice, no source.
    private const double PenaltyOfPace = 0.008,
        EasyPace = 3,
        PenaltyOfSide = 0.01,
        PenaltyOfSidePerTip = 0.02,
        PenaltyOfCannon = 0.005,
        CannonToAvoid = 0.3;

    private double PenaltyOf(in Stroke stroke, bool runsIntoBall) =>
        PenaltyOfPace * Math.Max(0, stroke.Pace - EasyPace)
        + (stroke.SideTips == 0 ? 0 : PenaltyOfSide + PenaltyOfSidePerTip * Math.Abs(stroke.SideTips))
        + (
            !runsIntoBall ? 0
            : context.Preferences.AvoidCannons ? CannonToAvoid
            : PenaltyOfCannon
        );

    // ---- With errors -----------------------------------------------------------------------------------------------

    /// <summary>One outcome of a stroke.</summary>
    /// <param name="Pots">The ball that is meant goes in where it is meant to, foul or not.</param>
    /// <param name="Beyond">By how much what would be played next is worth more than the place looks; 0 if that was not asked.</param>
    private readonly record struct Drawn(bool Pots, bool Scores, bool Foul, double Value, bool Holds, double Beyond = 0);

    private Scatter ScatterOf(Bench bench, Situation from, Tried tried) =>
        bench.ScatterOf(from.Layout, tried.Stroke, context.Player.Skill.Times(tried.Reach.ErrorFactor));

    private Drawn Draw(Bench bench, Situation from, Tried tried, in StrokeError error, out Played played)
    {
        played = bench.Play(from, tried.Stroke, error, tried.Of.Nominated);
        var scores = played.Ruling.Points > 0;
        var pots = bench.Simulator.PocketOf(tried.Of.Pot.Slot) == tried.Of.Cut.Pocket;
        if (!scores)
            return new(pots, false, played.Ruling.IsFoul, 0, false);
        var next = bench.Judge(played.Leaves);
        return new(
            pots,
            true,
            false,
            context.Worth.Gain(from.Frame, played.Ruling.NextFrame) + next.Value,
            next.Chance >= BetterThanEven || played.Ruling.NextFrame.IsOver
        );
    }

    private Ranked Sample(Bench bench, Situation from, Tried tried, Luck[] lucks)
    {
        var scatter = ScatterOf(bench, from, tried);
        var drawn = new Drawn[lucks.Length];
        for (var i = 0; i < lucks.Length; i++)
            drawn[i] = Draw(bench, from, tried, scatter.Error(lucks[i]), out _);
        return Tally(tried, drawn);
    }

    /// <summary>The same with what would be played next, instead of what the place looks like.</summary>
    private Drawn Deep(Bench bench, Situation from, Tried tried, in Luck luck, bool isTold = false)
    {
        var drawn = Draw(bench, from, tried, ScatterOf(bench, from, tried).Error(luck), out var played);
        if (!drawn.Scores || played.Ruling.NextFrame.IsOver)
            return drawn;
        var value =
            context.Worth.Gain(from.Frame, played.Ruling.NextFrame) + Math.Max(0, Glance(bench, played.Leaves, isTold)?.Value.Value ?? 0);
        return drawn with { Value = value, Beyond = value - drawn.Value };
    }

    /// <summary>Estimated from these strokes and the quick estimate.</summary>
    private Ranked Tally(Tried tried, Drawn[] drawn)
    {
        var (pots, scores, fouls, holds, value) = (0, 0, 0, 0, 0.0);
        foreach (var d in drawn)
        {
            if (d.Pots)
                pots++;
            if (d.Foul)
                fouls++;
            if (!d.Scores)
                continue;
            scores++;
            value += d.Value;
            if (d.Holds)
                holds++;
        }
        // The quick estimate knows how often the ball goes in, not how often the white follows it.
        var goesIn = (EstimateWeighs * tried.Chance + Math.Max(pots, scores)) / (EstimateWeighs + drawn.Length);
        var chance = goesIn * (pots == 0 ? 1 : (double)scores / Math.Max(pots, scores));
        var mean = scores == 0 ? 0 : value / scores;
        return With(new(tried, 0, chance, (double)fouls / drawn.Length, scores == 0 ? 0 : (double)holds / scores, 0), mean);
    }

    private double ValueOf(double chance, double foul, double mean) =>
        chance * mean - (1 - chance) * context.Worth.MissCost - foul * context.Worth.FoulCost;

    private Ranked Refine(Bench bench, Situation from, Ranked seed, Luck[] errors, Effort effort)
    {
        var (pot, trial) = (seed.Tried.Of, new PotTrial(from.Layout, seed.Tried.Of.Cut, context.Shape));
        return Refinement.Better(
            seed,
            context.Preferences.PlainOnly ? PlainTurns : Turns,
            effort.Halvings,
            (now, turn) =>
            {
                if (turn.Of(now.Tried.Stroke, Effort.Softest, Effort.Hardest) is not { } stroke)
                    return null;
                var candidate = now.Tried.Of;
                var tries = trial;
                if (turn.Part != 0)
                {
                    if (candidate.Cut.Kind != PotKind.Direct || candidate.InPart(turn.Part, from.Layout, context.Shape) is not { } moved)
                        return null;
                    candidate = moved;
                    tries = new(from.Layout, moved.Cut, context.Shape);
                }
                else if (candidate != pot)
                    tries = new(from.Layout, candidate.Cut, context.Shape);
                double? near = turn.Part == 0 ? now.Tried.Stroke.AimDegrees : null;
                var reach = Reach.Of(from.Layout, stroke, context.Player);
                // What looks far worse without error is not worth playing with errors.
                return
                    Try(bench, tries, from, candidate, reach, stroke, ref near) is not { } tried
                    || tried.Value < now.Tried.Value - 0.15 * Math.Abs(now.Tried.Value)
                    ? null
                    : Sample(bench, from, tried, errors);
            },
            (a, b) => a.Value > b.Value
        );
    }

    private static readonly Turn[] PlainTurns = [new(Speed: 0.1), new(Height: 0.2), new(Part: 0.5)],
        Turns = [new(Speed: 0.1), new(Height: 0.2), new(Side: 0.3), new(Part: 0.5)];

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
        if (!a.Of.Pot.IsSameAs(b.Of.Pot) || Pace.Ratio(a.Stroke.Pace, b.Stroke.Pace) > SameSpeed)
            return false;
        return a.Outcome.Leaves.Layout.White.At.DistanceTo(b.Outcome.Leaves.Layout.White.At) < SamePlace;
    }

    /// <summary>As chosen, with the figures that chose.</summary>
    private Choice ChoiceOf(Situation from, Ranked r)
    {
        Estimate Rough(double value) => new(value, Math.Abs(value), 0);
        return new(
            r.Tried.Of.Target,
            r.Tried.Stroke,
            r.Tried.Reach,
            new(Rough(r.Chance), Rough(r.Foul), Rough(r.Holds)),
            Rough(r.Value),
            context.Worth.Gain(from.Frame, r.Tried.Outcome.Ruling.NextFrame),
            r.Tried.Outcome,
            r.Tried.Next
        )
        {
            Route = RouteOf(from, r.Tried),
        };
    }

    private Route RouteOf(Situation from, Tried t)
    {
        var simulator = new Simulator(context.Shape);
        var record = new ShotRecord();
        t.Stroke.Play(simulator, from.Layout, record);
        return Route.Of(record);
    }
}
