using System.Collections.Concurrent;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Shots;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Planning;

/// <summary>A stroke to pot a ball that is on, and what it is worth.</summary>
/// <param name="Nominated">The ball it is played for: the colour, or the free ball, that is named.</param>
/// <param name="Stroke">As aimed.</param>
/// <param name="Chance">That it scores, 0–1.</param>
/// <param name="Foul">That it ends in a foul, the white going in above all.</param>
/// <param name="Holds">Of the times that it scores, the share after which the next pot is better than even.</param>
/// <param name="Value">What may be expected from here on, in the measure of the target (<see cref="Worth"/>).</param>
/// <param name="Gain">What the stroke itself makes of that if it scores.</param>
/// <param name="After">The table if it goes as meant.</param>
/// <param name="Next">What that is worth.</param>
public sealed record Choice(
    Pot Pot, Ball Nominated, Cut Cut, Stroke Stroke, Reach Reach, double Chance, double Foul, double Holds, double Value, double Gain,
    Played After, Quality Next, Route Route);

/// <summary>How much work goes into one choice of a stroke: counted, not timed, so that the same question has the same answer.</summary>
/// <param name="Pots">So many pots that look best are tried.</param>
/// <param name="Heights">Tips.</param>
/// <param name="Sides">Tips; 0 among them.</param>
/// <param name="SideHeights">Heights with side.</param>
/// <param name="Sifted">So many strokes are played with errors.</param>
/// <param name="Samples">So often each.</param>
/// <param name="Refined">So many are bettered by small changes.</param>
/// <param name="Deepened">Of so many it is asked what would be played next, from each place where the white may stop.</param>
/// <param name="DeepSamples">So many places each.</param>
/// <param name="Final">So many strokes are played for the chances that are told.</param>
internal sealed record Effort(
    int Pots, double[] Heights, double[] Sides, double[] SideHeights, double PaceStep, int Sifted, int Samples, int Refined, int Deepened, int DeepSamples, int Final)
{
    public const double Softest = 1.5, Hardest = 8.5;

    public static Effort Full { get; } = new(10, [-1.2, -0.8, -0.4, 0, 0.4, 0.8, 1.2], [-0.8, 0.8], [-0.7, 0, 0.7], 0.5, 60, 14, 12, 8, 14, 160);

    /// <summary>For the later shots of a plan.</summary>
    public static Effort Later { get; } = new(7, [-1.1, -0.55, 0, 0.55, 1.1], [-0.7, 0.7], [-0.5, 0.5], 0.7, 36, 12, 8, 4, 10, 120);

    /// <summary>For what would be played from one of many places.</summary>
    public static Effort Glance { get; } = new(3, [-0.9, -0.3, 0.3, 0.9], [], [], 0.9, 10, 10, 0, 0, 0, 0);
}

/// <summary>Everything that the choices of one plan share.</summary>
internal sealed class PlanContext(Skill skill, Player player, TableShape shape, PlanPreferences preferences, FairGate gate, CancellationToken cancel)
{
    private readonly ConcurrentBag<Bench> _benches = [];
    private readonly FairGate.Ticket _ticket = new();
    private long _examined;

    public Skill Skill { get; } = skill;
    public Player Player { get; } = player;
    public TableShape Shape { get; } = shape;
    public PlanPreferences Preferences { get; } = preferences;
    public Worth Worth { get; } = new(skill, player, preferences);
    public CancellationToken Cancel { get; } = cancel;

    /// <summary>Positions looked at so far.</summary>
    public long Examined => Interlocked.Read(ref _examined);

    public void Count() => Interlocked.Increment(ref _examined);

    public List<T> InParallel<T>(int count, Func<Bench, int, T> job)
    {
        var results = new T[count];
        gate.ForEach(_ticket, count, i => results[i] = WithBench(bench => job(bench, i)), Cancel);
        return [.. results];
    }

    private T WithBench<T>(Func<Bench, T> job)
    {
        var bench = _benches.TryTake(out var free) ? free : new Bench(this);
        try { return job(bench); }
        finally { _benches.Add(bench); }
    }
}

/// <summary>What one worker needs to play strokes and to judge where they leave the table.</summary>
internal sealed class Bench(PlanContext context)
{
    private const int LinesKept = 8;
    private readonly List<PotLines> _lines = [];

    public Simulator Simulator { get; } = new(context.Shape);
    public ShotRecord Record { get; } = new();

    /// <summary>The ways of the balls of a layout: kept, for most strokes move no ball but the two that are meant.</summary>
    public PotLines LinesOf(Layout layout)
    {
        for (var i = _lines.Count - 1; i >= 0; i--)
            if (_lines[i].IsOf(layout)) return _lines[i];
        var lines = new PotLines(layout, context.Shape, _lines.Count == 0 ? null : _lines[0]);
        // The oldest stays: it is the table that is played from, and most balls of the others lie as in it.
        if (_lines.Count == LinesKept) _lines.RemoveAt(1);
        _lines.Add(lines);
        return lines;
    }

    /// <summary>Plays a stroke with an error, and rules on it.</summary>
    public Played Play(Situation from, in Stroke stroke, in StrokeError error, Ball? nominated)
    {
        context.Cancel.ThrowIfCancellationRequested();
        context.Count();
        error.Play(Simulator, from.Layout, stroke, Record);
        return from.Play(Simulator, Record, nominated, context.Shape);
    }

    public Quality Judge(Situation situation) => context.Worth.Of(situation, LinesOf(situation.Layout));
}

/// <summary>
/// Chooses the stroke to play from a situation. A pipeline: pots on → strokes on a grid, played without error → sifted with errors →
/// refined → deepened by what would be played next → judged by a larger sample. See docs/planning.md.
/// </summary>
internal sealed class ShotSearch(PlanContext context)
{
    // A pot less likely than this, or than this share of the likeliest, is not tried.
    private const double LeastChance = 0.02, LeastShare = 0.15;

    // Where no straight pot is this likely, plants and doubles are looked at too.
    private const double PoorChance = 0.35, LeastPlant = 0.1;

    /// <summary>A quick estimate counts as so many strokes played.</summary>
    private const int EstimateWeighs = 14;

    /// <summary>Strokes for the same pot that leave the white nearer than this to one another, at a like pace, are one; m.</summary>
    private const double SamePlace = 0.04, SamePace = 0.8;

    private const double BetterThanEven = 0.5;

    private static readonly StrokeError[] NoErrors = [];

    /// <summary>A pot that is on, with what does not depend on the stroke.</summary>
    private sealed record Candidate(Pot Pot, Ball Nominated, Cut Cut, double Chance);

    /// <summary>A stroke that was played without error.</summary>
    private sealed record Tried(Candidate Of, Stroke Stroke, Reach Reach, double Chance, double Value, Played After, Quality Next)
    {
        /// <summary>Share of its value that it is ranked lower by, for not being simple.</summary>
        public double Fuss { get; init; }
    }

    /// <summary>What came of a stroke that was played with errors.</summary>
    private readonly record struct Sampled(double Value, double Chance, double Foul, double Holds);

    /// <summary>The best strokes, best first, none twice; empty if nothing is on.</summary>
    /// <param name="sifted">Told the first answer, before the long work.</param>
    public IReadOnlyList<Choice> Choose(Situation from, Effort effort, Action<IReadOnlyList<Choice>>? sifted = null)
    {
        var candidates = Candidates(from, effort, allKinds: true);
        if (candidates.Count == 0) return [];
        var columns = candidates.SelectMany(c => Columns(effort).Select(column => (Candidate: c, column.Height, column.Side))).ToList();
        List<Tried> tried = [.. context.InParallel(columns.Count, (bench, i) => Column(bench, from, columns[i].Candidate, columns[i].Height, columns[i].Side, effort)).SelectMany(t => t)];

        var errors = Errors(effort.Samples, 11);
        var distinct = Distinct(tried, effort.Sifted, perPot: Math.Max(6, effort.Sifted / 4));
        var values = context.InParallel(distinct.Count, (bench, i) => Sample(bench, from, distinct[i], errors));
        List<(Tried Tried, Sampled Sampled)> ranked = [.. distinct.Zip(values).OrderByDescending(r => r.Second.Value)];
        if (ranked.Count == 0) return [];
        sifted?.Invoke([.. ranked.Take(3).Select(r => ChoiceOf(from, r.Tried, r.Sampled))]);

        // The best of each pot first, so that no idea is lost for want of room.
        var seeds = ranked.GroupBy(r => r.Tried.Of.Pot).SelectMany(g => g.Take(4)).OrderByDescending(r => r.Sampled.Value).Take(effort.Refined).ToList();
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
            var after = context.InParallel(deep.Count * effort.DeepSamples, (bench, k) => Deep(bench, from, deep[k / effort.DeepSamples].Tried, deepErrors[k % effort.DeepSamples]));
            ranked = [.. deep.Select((r, i) => (r.Tried, Sampled: Tally(r.Tried, [.. after.Skip(i * effort.DeepSamples).Take(effort.DeepSamples)], r.Sampled))).OrderByDescending(r => r.Sampled.Value)];
        }
        if (effort.Final > 0)
        {
            var finalErrors = Errors(effort.Final, 37);
            var final = context.InParallel(ranked.Count, (bench, i) => Sample(bench, from, ranked[i].Tried, finalErrors));
            // The value as found by looking ahead, with the chance as found by the larger sample.
            ranked = [.. ranked.Select((r, i) => (r.Tried, Sampled: final[i] with { Value = Rescaled(r.Sampled, final[i].Chance, final[i].Foul) })).OrderByDescending(r => r.Sampled.Value)];
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
            if (best is null || sampled.Value > best.Value) best = ChoiceOf(from, one, sampled);
        }
        return best;
    }

    // ---- Pots on ---------------------------------------------------------------------------------------------------

    private List<Candidate> Candidates(Situation from, Effort effort, bool allKinds, Bench? bench = null)
    {
        var (layout, frame) = (from.Layout, from.Frame);
        if (frame.IsOver) return [];
        var lines = bench?.LinesOf(layout) ?? new PotLines(layout, context.Shape);
        var found = new List<(Candidate Candidate, double Value)>();
        foreach (var line in lines.Lines)
        {
            var ball = lines.BallIn(line.Slot);
            if (!(frame.FreeBall || frame.On.Includes(ball)) || lines.From(line, layout.White.X, layout.White.Y, context.Skill) is not { } pot || pot.Chance < LeastChance) continue;
            var cut = Cut.Of(layout, new(line.Slot, line.Pocket), context.Shape);
            if (cut.CanBeAimed) found.Add((new(cut.Pot, ball, cut, pot.Chance), context.Worth.Promise(from, lines, pot)));
        }
        var likeliest = found.Count == 0 ? 0 : found.Max(f => f.Candidate.Chance);
        List<Candidate> best = [.. found.Where(f => f.Candidate.Chance >= LeastShare * likeliest).OrderByDescending(f => f.Value).Take(effort.Pots).Select(f => f.Candidate)];
        if (allKinds && likeliest < PoorChance)
            foreach (var option in TableReading.Read(layout, new(0, 0, 0, 4, 0), context.Skill, context.Player, context.Shape, context.Cancel))
            {
                var (struck, potted) = (layout.Balls[option.Cut.Pot.Struck].Ball, layout.Balls[option.Cut.Pot.Slot].Ball);
                // Of a plant both balls must be on: reds, then.
                if (option.Cut.Kind == PotKind.Direct || option.Chance < LeastPlant || !frame.On.Includes(struck) || !frame.On.Includes(potted) || (struck != potted && !(struck.IsRed && potted.IsRed))) continue;
                if (best.Count(b => b.Cut.Kind != PotKind.Direct) < 3) best.Add(new(option.Cut.Pot, potted, option.Cut, option.Chance));
            }
        return best;
    }

    // ---- Strokes, played without error -----------------------------------------------------------------------------

    private IEnumerable<(double Height, double Side)> Columns(Effort effort)
    {
        foreach (var height in effort.Heights) yield return (height, 0);
        if (context.Preferences.PlainOnly) yield break;
        foreach (var side in effort.Sides)
            foreach (var height in effort.SideHeights) yield return (height, side);
    }

    /// <summary>One height and side of the tip at all paces, from the softest.</summary>
    private List<Tried> Column(Bench bench, Situation from, Candidate candidate, double height, double side, Effort effort)
    {
        var tries = new List<Tried>();
        var trial = new PotTrial(from.Layout, candidate.Cut, context.Shape);
        double? near = null;
        for (var pace = Effort.Softest; pace <= Effort.Hardest + 1e-9; pace += effort.PaceStep)
            if (Try(bench, trial, from, candidate, new(candidate.Cut.AimDegrees, side, height, pace, 0), ref near) is { } tried) tries.Add(tried);
        return tries;
    }

    /// <summary>Aims a stroke and plays it; null if it has no aim, or does not score even without error.</summary>
    private Tried? Try(Bench bench, PotTrial trial, Situation from, Candidate candidate, Stroke stroke, ref double? near)
    {
        context.Cancel.ThrowIfCancellationRequested();
        var reach = Reach.Of(from.Layout, stroke, context.Player);
        stroke = stroke with { ElevationDegrees = reach.ElevationDegrees };
        if (PotAim.Find(trial, candidate.Cut, stroke, near, PotAim.Roughly) is not { } aim) return null;
        near = aim;
        stroke = stroke with { AimDegrees = aim };
        var played = bench.Play(from, stroke, default, candidate.Nominated);
        if (played.Ruling.Points == 0 || bench.Simulator.PocketOf(candidate.Pot.Slot) != candidate.Cut.Pocket) return null;
        var chance = candidate.Chance;
        if (reach.ErrorFactor > 1 && candidate.Cut.Kind == PotKind.Direct)
            chance = PotLines.Chance(candidate.Cut.OpeningDegrees * Math.PI / 360, Math.Abs(candidate.Cut.CutDegrees) * Math.PI / 180, candidate.Cut.CueBallDistance, context.Skill.Times(reach.ErrorFactor));
        var next = bench.Judge(played.After);
        var value = chance * (context.Worth.Gain(from.Frame, played.Ruling.After) + next.Value) - (1 - chance) * context.Worth.MissCost;
        var fuss = FussOf(stroke, Contacts.Kiss(bench.Record, candidate.Pot) is not null);
        return new(candidate, stroke, reach, chance, value - fuss * Math.Abs(value), played, next) { Fuss = fuss };
    }

    // Of strokes that are worth nearly the same a player takes the simpler one. Shares of the value: common practice, no source.
    private const double FussOfPace = 0.004, EasyPace = 5, FussOfSide = 0.01, FussOfCannon = 0.005, CannonToAvoid = 0.3;

    private double FussOf(in Stroke stroke, bool runsIntoBall) =>
        FussOfPace * Math.Max(0, stroke.Pace - EasyPace) + FussOfSide * Math.Abs(stroke.SideTips) + (!runsIntoBall ? 0 : context.Preferences.AvoidCannons ? CannonToAvoid : FussOfCannon);

    // ---- With errors -----------------------------------------------------------------------------------------------

    private StrokeError[] Errors(int count, int seed)
    {
        if (count == 0) return NoErrors;
        var random = new Random(seed);
        return [.. Enumerable.Range(0, count).Select(_ => StrokeError.Draw(random, context.Skill))];
    }

    /// <summary>One outcome of a stroke.</summary>
    private readonly record struct Drawn(bool Scores, bool Foul, double Value, bool Holds);

    private Drawn Draw(Bench bench, Situation from, Tried tried, in StrokeError error, out Played played)
    {
        var factor = tried.Reach.ErrorFactor;
        var able = factor == 1 ? error : error with { TurnDegrees = factor * error.TurnDegrees, Side = factor * error.Side, Height = factor * error.Height };
        played = bench.Play(from, tried.Stroke, able, tried.Of.Nominated);
        var scores = played.Ruling.Points > 0;
        if (!scores) return new(false, played.Ruling.IsFoul, 0, false);
        var next = bench.Judge(played.After);
        return new(true, false, context.Worth.Gain(from.Frame, played.Ruling.After) + next.Value, next.Chance >= BetterThanEven || played.Ruling.After.IsOver);
    }

    private Sampled Sample(Bench bench, Situation from, Tried tried, StrokeError[] errors)
    {
        var drawn = new Drawn[errors.Length];
        for (var i = 0; i < errors.Length; i++) drawn[i] = Draw(bench, from, tried, errors[i], out _);
        return Tally(tried, drawn, null);
    }

    /// <summary>The same with what would be played next, instead of what the place looks like.</summary>
    private Drawn Deep(Bench bench, Situation from, Tried tried, in StrokeError error)
    {
        var drawn = Draw(bench, from, tried, error, out var played);
        if (!drawn.Scores || played.Ruling.After.IsOver) return drawn;
        return drawn with { Value = context.Worth.Gain(from.Frame, played.Ruling.After) + Math.Max(0, Glance(bench, played.After)?.Value ?? 0) };
    }

    /// <param name="known">Its chance, from more samples than these; null: estimated from these and the quick estimate.</param>
    private Sampled Tally(Tried tried, Drawn[] drawn, Sampled? known)
    {
        var (scores, fouls, holds, value) = (0, 0, 0, 0.0);
        foreach (var d in drawn)
        {
            if (d.Foul) fouls++;
            if (!d.Scores) continue;
            scores++;
            value += d.Value;
            if (d.Holds) holds++;
        }
        var weight = drawn.Length >= 100 ? 0 : EstimateWeighs;
        var chance = known?.Chance ?? (weight * tried.Chance + scores) / (weight + drawn.Length);
        var foul = known?.Foul ?? (double)fouls / drawn.Length;
        var mean = scores == 0 ? 0 : value / scores;
        var (worth, fuss) = (ValueOf(chance, foul, mean), tried.Fuss);
        return new(worth - fuss * Math.Abs(worth), chance, foul, scores == 0 ? 0 : (double)holds / scores);
    }

    private double ValueOf(double chance, double foul, double mean) => chance * mean - (1 - chance) * context.Worth.MissCost - foul * context.Worth.FoulCost;

    private double Rescaled(in Sampled sampled, double chance, double foul)
    {
        var worth = context.Worth;
        var mean = sampled.Chance <= 0 ? 0 : (sampled.Value + (1 - sampled.Chance) * worth.MissCost + sampled.Foul * worth.FoulCost) / sampled.Chance;
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
            foreach (var (up, harder, right) in (ReadOnlySpan<(double, double, double)>)[(0, 1, 0), (0, -1, 0), (1, 0, 0), (-1, 0, 0), (0, 0, 1), (0, 0, -1)])
            {
                if (right != 0 && context.Preferences.PlainOnly) continue;
                var stroke = start with { HeightTips = start.HeightTips + 0.2 * scale * up, Pace = start.Pace + 0.3 * scale * harder, SideTips = start.SideTips + 0.3 * scale * right };
                if (Tip.Margin(stroke.SideTips, stroke.HeightTips) < 0.1 || stroke.Pace is < Effort.Softest or > Effort.Hardest) continue;
                double? near = start.AimDegrees;
                if (Try(bench, trial, from, seed.Of, stroke, ref near) is not { } tried || tried.Value < best.Tried.Value - 0.15 * Math.Abs(best.Tried.Value)) continue;
                var value = Sample(bench, from, tried, errors);
                if (value.Value > best.Sampled.Value) best = (tried, value);
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
            if (kept.Count == most) break;
            if (kept.All(k => !IsSame(k, one)) && kept.Count(k => k.Of == one.Of) < perPot) kept.Add(one);
        }
        return kept;
    }

    private static bool IsSame(Tried a, Tried b)
    {
        if (a.Of != b.Of || Math.Abs(a.Stroke.Pace - b.Stroke.Pace) > SamePace) return false;
        var (p, q) = (a.After.After.Layout.White, b.After.After.Layout.White);
        return (p.X - q.X) * (p.X - q.X) + (p.Y - q.Y) * (p.Y - q.Y) < SamePlace * SamePlace;
    }

    /// <summary>The best, no two the same after refining.</summary>
    private static List<(Tried Tried, Sampled Sampled)> Apart(List<(Tried Tried, Sampled Sampled)> ranked, int most)
    {
        var kept = new List<(Tried Tried, Sampled Sampled)>();
        foreach (var one in ranked)
            if (kept.Count < most && kept.All(k => !IsSame(k.Tried, one.Tried))) kept.Add(one);
        return kept;
    }

    private Choice ChoiceOf(Situation from, Tried t, Sampled s) => new(
        t.Of.Pot, t.Of.Nominated, t.Of.Cut, t.Stroke, t.Reach, s.Chance, s.Foul, s.Holds, s.Value,
        context.Worth.Gain(from.Frame, t.After.Ruling.After), t.After, t.Next, RouteOf(from, t));

    private Route RouteOf(Situation from, Tried t)
    {
        var simulator = new Simulator(context.Shape);
        var record = new ShotRecord();
        default(StrokeError).Play(simulator, from.Layout, t.Stroke, record);
        return Route.Of(record);
    }
}
