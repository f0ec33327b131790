using System.Globalization;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;

namespace DeepBaize.Benchmarks;

/// <summary>
/// Frames by self-play, for docs/safety.md: how good the advice is against plain policies, how true the chance to win is, and what the game
/// of visits is fitted to.
/// </summary>
internal static class FrameQuality
{
    private static readonly TableShape Shape = new(Conditions.Default);

    public static void Run(string path, string[] args)
    {
        string At(int i, string usual) => args.Length > i ? args[i] : usual;
        var frames = int.Parse(At(1, "60"), CultureInfo.InvariantCulture);
        switch (At(0, "calibrate"))
        {
            case "calibrate":
                Calibrate(path, At(2, "county"), frames);
                break;
            case "fit":
                Fit(At(2, "county"), frames);
                break;
            case "against":
                Against(path, At(2, "county"), frames);
                break;
            case "opening":
                FrameRegret.Opening(path, At(2, "county"), frames);
                break;
            case "regret":
                FrameRegret.Run(path, At(2, "county"), frames);
                break;
            default:
                Console.Error.WriteLine("frames calibrate|fit|against|opening|regret [frames or play-outs] [skill]");
                break;
        }
    }

    internal static Situation BreakOff(int turn) =>
        Situation.Create(
            Layout.OfRest([new(Ball.White, 0.7, 0.75), .. Rack.Colours(), .. Rack.Pack()]),
            new() { Turn = turn, InHand = false }
        );

    /// <summary>Half of the frames begin at the break-off, half with some of the reds gone.</summary>
    private static Situation Start(int i)
    {
        if (i % 2 == 0)
            return BreakOff(i / 2 % 2);
        var table = BreakPositions.OpenTables(Shape)[i % 16];
        var random = new Random(i);
        return Situation.Create(
            table.Layout,
            new()
            {
                Turn = i / 2 % 2,
                First = random.Next(40),
                Second = random.Next(40),
            }
        );
    }

    private static List<(int Winner, List<Moment> Moments)> SelfPlay(string skill, int frames, Func<int, FramePolicy[]> policies)
    {
        var player = Player.OfSkill(skill);
        var results = new (int, List<Moment>)[frames];
        var (done, watch) = (0, System.Diagnostics.Stopwatch.StartNew());
        Parallel.For(0, frames, new ParallelOptions { MaxDegreeOfParallelism = Environment.ProcessorCount }, i =>
        {
            results[i] = FramePlay.Play(Start(i), policies(i), [player, player], Shape, 7000 + i);
            if (Interlocked.Increment(ref done) % 20 == 0)
                Console.Error.WriteLine($"{done} frames, {watch.Elapsed.TotalSeconds:F0} s");
        });
        return [.. results];
    }

    // ---- How true -------------------------------------------------------------------------------------------------

    private static void Calibrate(string path, string skill, int frames)
    {
        FramePolicy advice = new QuickAdvice(Shape, PlanTarget.Frame);
        var played = SelfPlay(skill, frames, _ => [advice, advice]).Where(p => p.Winner >= 0).ToList();
        List<(Moment M, bool Won, int Frame)> all =
        [
            .. played.SelectMany((p, i) => p.Moments.Where((_, k) => k % 3 == 0).Select(m => (m, p.Winner == m.Turn, i))),
        ];
        List<string> lines = [$"| reckoned, {skill} | tables | mean reckoned | won ± error |", "|---|---|---|---|"];
        var worst = 0.0;
        for (var tenth = 0; tenth < 10; tenth++)
        {
            var of = all.Where(a => Math.Min(9, (int)(10 * a.M.Win)) == tenth).ToList();
            if (of.Count == 0)
                continue;
            // Tables of one frame share its winner: the error is that of frames, not of tables.
            var byFrame = of.GroupBy(a => a.Frame).Select(g => (N: g.Count(), Won: g.Count(a => a.Won), Win: g.Sum(a => a.M.Win))).ToList();
            var (n, won, mean) = (byFrame.Sum(f => f.N), byFrame.Sum(f => f.Won), byFrame.Sum(f => f.Win));
            var share = (double)won / n;
            var error = Math.Sqrt(byFrame.Sum(f => Math.Pow(f.Won - share * f.N, 2))) / n;
            worst = Math.Max(worst, Math.Abs(share - mean / n));
            lines.Add(
                Invariant($"| {10 * tenth}–{10 * tenth + 10} % | {n} | {100 * mean / n:F1} % | {100 * share:F1} ± {100 * error:F1} % |")
            );
        }
        double Brier(Func<Moment, double> chance) => all.Average(a => Math.Pow(chance(a.M) - (a.Won ? 1 : 0), 2));
        lines.Add("");
        lines.Add(
            Invariant(
                $"Brier score {Brier(m => m.Win):F4}; by the lead alone {BestByLead(all):F4}; of one half 0.25. {played.Count} frames."
            )
        );
        lines.ForEach(Console.WriteLine);
        DocTable.Write(path, "calibration", lines);
    }

    internal static string Invariant(FormattableString s) => s.ToString(CultureInfo.InvariantCulture);

    /// <summary>A logistic curve in the lead over the root of the points left, its slope fitted to the same tables.</summary>
    private static double BestByLead(List<(Moment M, bool Won, int Frame)> all)
    {
        double At(double slope) =>
            all.Average(a =>
                Math.Pow(1 / (1 + Math.Exp(-slope * a.M.Frame.Lead / Math.Sqrt(10 + a.M.Frame.PointsLeft))) - (a.Won ? 1 : 0), 2)
            );
        return Enumerable.Range(1, 60).Min(k => At(k * 0.02));
    }

    // ---- How good -------------------------------------------------------------------------------------------------

    private static void Against(string path, string skill, int frames)
    {
        FramePolicy advice = new QuickAdvice(Shape, PlanTarget.Frame);
        List<string> lines = ["| skill | against | frames | won by the advice ± error |", "|---|---|---|---|"];
        (string Name, FramePolicy Policy)[] others =
        [
            ("the easiest pot above even, else a thin clip", new PlainAdvice(Shape)),
            ("the same advice by points", new QuickAdvice(Shape, PlanTarget.MostPoints)),
        ];
        foreach (var (name, other) in others)
        {
            // Each table twice, the players changed.
            var played = SelfPlay(skill, frames, i => i / 4 % 2 == 0 ? [advice, other] : [other, advice]);
            var won = played.Select((p, i) => (p.Winner, Mine: i / 4 % 2)).Where(p => p.Winner >= 0).ToList();
            var share = won.Count(w => w.Winner == w.Mine) / (double)won.Count;
            lines.Add(
                Invariant(
                    $"| {skill} | {name} | {won.Count} | {100 * share:F0} ± {100 * Math.Sqrt(share * (1 - share) / won.Count):F0} % |"
                )
            );
            Console.WriteLine(lines[^1]);
        }
        DocTable.Write(path, $"frames-{skill}", lines);
    }

    // ---- What is fitted -------------------------------------------------------------------------------------------

    private static void Fit(string skill, int frames)
    {
        FramePolicy advice = new QuickAdvice(Shape, PlanTarget.Frame);
        var played = SelfPlay(skill, frames, _ => [advice, advice]);
        var all = played.SelectMany(p => p.Moments).ToList();
        Console.WriteLine(VisitSkill.Of(Player.OfSkill(skill)));
        Console.WriteLine(
            Invariant($"{played.Count(p => p.Winner < 0)} frames unfinished; {all.Count / (double)frames:F0} strokes a frame")
        );
        foreach (var before in Enum.GetValues<MomentKind>())
        {
            var of = all.Where(m => m.Before == before).ToList();
            if (of.Count == 0)
                continue;
            var (open, closed) = (of.Where(m => m.Chance >= 0.5).ToList(), of.Where(m => m.Chance < 0.5).ToList());
            static double Mean(List<Moment> list) => list.Select(m => m.Chance).DefaultIfEmpty().Average();
            var share = open.Count / (double)of.Count;
            Console.WriteLine(
                Invariant($"after {before}: {of.Count}, open {share:F3} (mean {Mean(open):F3}), closed mean {Mean(closed):F3}")
            );
        }
        // By how far the frame has gone: with few balls left fewer of them are open.
        (string Name, Func<Frame, bool> Is)[] stages =
        [
            ("colours", f => f.Reds == 0 && f.On != BallOn.Colour),
            ("1 or 2 reds", f => f.Reds is 1 or 2),
            ("3 to 5 reds", f => f.Reds is >= 3 and <= 5),
            ("6 to 9 reds", f => f.Reds is >= 6 and <= 9),
            ("10 reds and more", f => f.Reds >= 10),
        ];
        foreach (var (name, isIn) in stages)
        {
            string Of(MomentKind before, bool isColour)
            {
                var of = all.Where(m => m.Before == before && isIn(m.Frame) && m.Frame.On == BallOn.Colour == isColour).ToList();
                var open = of.Where(m => m.Chance >= 0.5).ToList();
                var played = open.Where(m => m.Played == MomentKind.Potted).ToList();
                var wentIn = played.Count(m => m.Points > 0) / Math.Max(1.0, played.Count);
                return of.Count == 0 ? "none" : Invariant($"{open.Count / (double)of.Count:F2} of {of.Count}, in {wentIn:F2}");
            }
            Console.WriteLine(
                $"  {name}: after a pot {Of(MomentKind.Potted, false)}; on a colour {Of(MomentKind.Potted, true)}; "
                    + $"after a miss {Of(MomentKind.Missed, false)}; after a safety {Of(MomentKind.Safety, false)}"
            );
        }
        void Share(string name, IEnumerable<Moment> of, Func<Moment, bool> counts)
        {
            var list = of.ToList();
            Console.WriteLine(Invariant($"{name}: {list.Count(counts) / Math.Max(1.0, list.Count):F3} of {list.Count}"));
        }
        var pots = all.Where(m => m.Played == MomentKind.Potted).ToList();
        Share("pots that went in, open", pots.Where(m => m.Chance >= 0.5), m => m.Points > 0);
        Share("pots that went in, closed", pots.Where(m => m.Chance < 0.5), m => m.Points > 0);
        Share("safeties that were fouls", all.Where(m => m.Played == MomentKind.Safety), m => m.IsFoul);
        Share("replies to a safety that were fouls", all.Where(m => m.Before == MomentKind.Safety), m => m.IsFoul);
        Share("replies to a safety that were pots", all.Where(m => m.Before == MomentKind.Safety), m => m.Played == MomentKind.Potted);
        var colours = all.Where(m => m.Frame.On == BallOn.Colour && m.Points > 0).ToList();
        Console.WriteLine(Invariant($"a colour after a red makes {colours.Select(m => (double)m.Points).DefaultIfEmpty().Average():F2}"));
        FitEase(played);
        Variants(played, VisitSkill.Of(Player.OfSkill(skill)));
    }

    private static readonly (
        string Name,
        Func<VisitSkill, double> Get,
        Func<VisitSkill, double, VisitSkill> With,
        double Prior
    )[] Figures =
    [
        ("Pot", v => v.Pot, (v, x) => v with { Pot = x }, 0.04),
        ("Keeps", v => v.Keeps, (v, x) => v with { Keeps = x }, 0.04),
        ("Opening", v => v.Opening, (v, x) => v with { Opening = x }, 0.05),
        ("OpeningAfterMiss", v => v.OpeningAfterMiss, (v, x) => v with { OpeningAfterMiss = x }, 0.05),
        ("Long", v => v.Long, (v, x) => v with { Long = x }, 0.05),
        ("Foul", v => v.Foul, (v, x) => v with { Foul = x }, 0.02),
        ("Snooker", v => v.Snooker, (v, x) => v with { Snooker = x }, 0.03),
    ];

    /// <summary>
    /// Bettered from what was counted, one figure after the other, by the likelihood of the winners: tables of one frame count as one, and
    /// a normal prior about what was counted keeps each figure near it.
    /// </summary>
    private static void Variants(List<(int Winner, List<Moment> Moments)> played, VisitSkill usual)
    {
        List<(Moment M, bool Won)> all =
        [
            .. played.Where(p => p.Winner >= 0).SelectMany(p => p.Moments.Where((_, k) => k % 3 == 0).Select(m => (m, p.Winner == m.Turn))),
        ];
        (double Loss, double Brier, double Slope) Of(VisitSkill skill)
        {
            FrameObjective[] objectives = [new(0, skill, skill), new(1, skill, skill)];
            var reckoned = all.ConvertAll(a => Math.Clamp(objectives[a.M.Turn].Of(a.M.Frame, a.M.Outlook), 1e-3, 1 - 1e-3));
            double LossAt(double slope) =>
                all.Select(
                        (a, i) =>
                        {
                            var q = 1 / (1 + Math.Pow(reckoned[i] / (1 - reckoned[i]), -slope));
                            return -Math.Log(a.Won ? q : 1 - q);
                        }
                    )
                    .Average();
            var prior = Figures.Sum(f => Math.Pow((f.Get(skill) - f.Get(usual)) / f.Prior, 2) / 2);
            return (
                LossAt(1) * played.Count + prior,
                all.Select((a, i) => Math.Pow(reckoned[i] - (a.Won ? 1 : 0), 2)).Average(),
                Enumerable.Range(10, 50).Select(k => 0.05 * k).MinBy(LossAt)
            );
        }
        var (best, now) = (usual, Of(usual));
        Console.WriteLine(Invariant($"counted: loss {now.Loss:F2}, Brier {now.Brier:F4}, slope {now.Slope:F2}"));
        for (var scale = 1.0; scale > 0.2; scale /= 2)
            for (var (round, isBetter) = (0, true); isBetter && round < 4; round++)
            {
                isBetter = false;
                foreach (var figure in Figures)
                    foreach (var way in (double[])[1, -1])
                    {
                        var tried = figure.With(best, Math.Clamp(figure.Get(best) + way * scale * figure.Prior, 0.001, 0.99));
                        if (Of(tried) is var then && then.Loss < now.Loss - 1e-3)
                            (best, now, isBetter) = (tried, then, true);
                    }
            }
        Console.WriteLine(Invariant($"fitted: loss {now.Loss:F2}, Brier {now.Brier:F4}, slope {now.Slope:F2}"));
        Console.WriteLine(best);
    }

    /// <summary>
    /// Logistic regression of "the safety left a pot better than even" on what was seen before it, by Newton's method.
    /// </summary>
    private static void FitEase(List<(int Winner, List<Moment> Moments)> played)
    {
        var (xs, ys) = (new List<double[]>(), new List<double>());
        foreach (var (_, moments) in played)
            for (var i = 0; i + 1 < moments.Count; i++)
                if (moments[i] is { Played: MomentKind.Safety, IsFoul: false, Points: 0, Features.Length: > 0 })
                {
                    xs.Add(moments[i].Features);
                    ys.Add(moments[i + 1].Chance >= 0.5 ? 1 : 0);
                }
        if (xs.Count < 100)
            return;
        var x = MathNet.Numerics.LinearAlgebra.Matrix<double>.Build.DenseOfRowArrays(xs);
        var y = MathNet.Numerics.LinearAlgebra.Vector<double>.Build.DenseOfEnumerable(ys);
        var beta = MathNet.Numerics.LinearAlgebra.Vector<double>.Build.Dense(x.ColumnCount);
        MathNet.Numerics.LinearAlgebra.Matrix<double> covariance = null!;
        for (var step = 0; step < 12; step++)
        {
            var p = (x * beta).Map(z => 1 / (1 + Math.Exp(-z)));
            var weights = MathNet.Numerics.LinearAlgebra.Matrix<double>.Build.DenseOfDiagonalVector(p.PointwiseMultiply(1 - p));
            // A little ridge, for what is hardly ever seen.
            covariance = (
                x.TransposeThisAndMultiply(weights * x)
                + 0.5 * MathNet.Numerics.LinearAlgebra.Matrix<double>.Build.DenseIdentity(x.ColumnCount)
            ).Inverse();
            beta += covariance * (x.TransposeThisAndMultiply(y - p) - 0.5 * beta);
        }
        string[] names = ["level", "per metre", "tight", "hidden", "in baulk", "open"];
        Console.WriteLine(Invariant($"safeties fitted {xs.Count}, left a pot {ys.Average():F3}"));
        for (var k = 0; k < names.Length; k++)
            Console.WriteLine(Invariant($"  {names[k]}: {beta[k]:F2} ± {Math.Sqrt(covariance[k, k]):F2}"));
    }
}
