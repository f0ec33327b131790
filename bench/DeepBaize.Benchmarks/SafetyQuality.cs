using System.Globalization;
using DeepBaize.Core.Advice.Decide;
using DeepBaize.Core.Advice.Escape;
using DeepBaize.Core.Geometry;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using DeepBaize.Core.Work;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Benchmarks;

/// <summary>
/// Safeties and escapes against plain policies, over the same errors, for the tables of docs/safety.md:
/// <c>dotnet run -c Release --project bench/DeepBaize.Benchmarks -- safety</c>. A few minutes.
/// </summary>
public static class SafetyQuality
{
    private const int Positions = 24,
        Strokes = 60;
    private const double PlainPace = Pace.Medium,
        PlainFullness = 0.25;

    public static void Run(string path)
    {
        var shape = new TableShape(Conditions.Default);
        var lines = new List<string>
        {
            "| skill | exchanges | search leaves a pot | thin clip leaves a pot | search ÷ plain |",
            "|---|---|---|---|---|",
        };
        foreach (var name in (string[])["county", "club"])
        {
            var player = Player.OfSkill(name);
            var (search, plain, exchanges) = (0.0, 0.0, 0);
            foreach (var situation in Exchanges(shape))
            {
                var decision = Decider.Solve(situation, player, player, shape);
                if (decision.Safeties.Count == 0 || Clip(situation) is not { } clip)
                    continue;
                exchanges++;
                search += LeftAPot(situation, decision.Safeties[0].Aim.Stroke, player, shape);
                plain += LeftAPot(situation, clip, player, shape);
            }
            lines.Add(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"| {name} | {exchanges} × {Strokes} | {100 * search / exchanges:0} % "
                        + $"| {100 * plain / exchanges:0} % | {search / plain:0.00} |"
                )
            );
        }
        lines.Add("");
        lines.Add("| skill | snookers | search hits | plain mirror aim off one cushion hits | search ÷ plain |");
        lines.Add("|---|---|---|---|---|");
        foreach (var name in (string[])["county", "club"])
        {
            var player = Player.OfSkill(name);
            var (search, plain, snookers) = (0.0, 0.0, 0);
            foreach (var situation in Snookers(shape))
            {
                var escapes = EscapeSearch.Solve(situation, player, player, shape);
                snookers++;
                if (escapes.Count > 0)
                    search += Hits(situation, escapes.MaxBy(e => e.Odds.Hit.Value)!.Aim.Stroke, player.Skill, shape);
                if (Mirror(situation, shape) is { } mirror)
                    plain += Hits(situation, mirror, player.Skill, shape);
            }
            lines.Add(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"| {name} | {snookers} × {Strokes} | {100 * search / snookers:0} % "
                        + $"| {100 * plain / snookers:0} % | {search / plain:0.0} |"
                )
            );
        }
        DocTable.Write(path, "safety", lines);
        Console.WriteLine(string.Join('\n', lines));
    }

    /// <summary>
    /// What is lost by the safety offered first: the pots left by it, less those left by the best of forty other strokes by long play-outs.
    /// Half of the tables have reds near cushions. Strokes that choose the best do not tell it.
    /// </summary>
    public static void Regret(string path)
    {
        const int tables = 6,
            candidates = 40,
            sifted = 60,
            finalists = 6,
            told = 300;
        var shape = new TableShape(Conditions.Default);
        List<string> lines =
        [
            "| skill | tables | the safety offered leaves a pot | the best of forty | regret ± error | largest |",
            "|---|---|---|---|---|---|",
        ];
        foreach (var name in (string[])["county", "club"])
        {
            var player = Player.OfSkill(name);
            var judge = new PositionJudge(player, shape);
            var context = new SearchContext(new(Frame.Start, player, shape, PlanPreferences.Default), FairGate.Shared, default);
            double Left(Workspace workspace, Situation from, Stroke stroke, int strokes, int seed, bool isLong)
            {
                var (random, left) = (new Random(seed), 0);
                var scatter = workspace.ScatterOf(from.Layout, stroke);
                for (var i = 0; i < strokes; i++)
                {
                    var played = workspace.Play(from, stroke, scatter.Error(StandardDraws.Draw(random)), null);
                    if (played.Ruling.Points > 0 || played.Ruling.NextFrame.IsOver)
                        continue;
                    var lines = workspace.LinesOf(played.Leaves.Layout);
                    var leave = judge.Of(played.Leaves, lines);
                    if (isLong ? judge.BestChance(played.Leaves, lines, leave) > PositionJudge.Even : leave.LeavesPot)
                        left++;
                }
                return (double)left / strokes;
            }
            var (offered, best) = (new List<double>(), new List<double>());
            foreach (var from in Exchanges(shape).Take(tables).Concat(NearCushions(shape).Take(tables)))
            {
                var safeties = Decider.Solve(from, player, player, shape).Safeties;
                if (safeties.Count == 0)
                    continue;
                var strokes = new SafetyStrokes(context);
                var jobs = strokes.Ways(from).ToList();
                var tried = context
                    .InParallel(jobs.Count, (workspace, i) => strokes.Play(workspace, from, jobs[i].Slot, jobs[i].Offset))
                    .SelectMany(t => t)
                    .Where(t => t.Played.Ruling.Points == 0)
                    .OrderByDescending(t => t.Value);
                // A few of each ball and thickness, so that the forty differ.
                List<Stroke> forty =
                [
                    .. tried
                        .GroupBy(t => (t.Slot, t.Offset))
                        .SelectMany(g => g.Take(3))
                        .OrderByDescending(t => t.Value)
                        .Take(candidates)
                        .Select(t => t.Stroke),
                ];
                var sift = context.InParallel(forty.Count, (workspace, i) => Left(workspace, from, forty[i], sifted, 1, isLong: false));
                List<Stroke> last = [.. forty.Zip(sift).OrderBy(f => f.Second).Take(finalists).Select(f => f.First)];
                var chosen = context.InParallel(last.Count, (workspace, i) => Left(workspace, from, last[i], told, 2, isLong: true));
                var winner = last[chosen.IndexOf(chosen.Min())];
                List<Stroke> two = [safeties[0].Aim.Stroke, winner];
                var final = context.InParallel(2, (workspace, i) => Left(workspace, from, two[i], told, 3, isLong: true));
                offered.Add(final[0]);
                best.Add(final[1]);
            }
            var regrets = offered.Zip(best, (o, b) => o - b).ToList();
            var (mean, n) = (regrets.Average(), regrets.Count);
            var error = Math.Sqrt(regrets.Sum(r => (r - mean) * (r - mean)) / n / (n - 1));
            lines.Add(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"| {name} | {n} | {offered.Average():0.00} | {best.Average():0.00} "
                        + $"| {mean:+0.000;-0.000} ± {error:0.000} | {regrets.Max():+0.00;-0.00} |"
                )
            );
            Console.WriteLine(lines[^1]);
        }
        DocTable.Write(path, "regret", lines);
    }

    /// <summary>Mid-frame tables without an easy pot: the white in baulk or by a cushion, reds about the pack.</summary>
    internal static IEnumerable<Situation> Exchanges(TableShape shape) =>
        Exchanges(shape, 31, random => new(1.9 + 1.5 * random.NextDouble(), 0.1 + (Width - 0.2) * random.NextDouble()));

    /// <summary>Mid-frame tables without an easy pot, most of the reds within 45 mm of a cushion.</summary>
    internal static IEnumerable<Situation> NearCushions(TableShape shape) => Exchanges(shape, 32, random =>
        {
            var off = BallRadius + 0.001 + 0.044 * random.NextDouble();
            return random.Next(5) switch
            {
                0 => new(Length - off, 0.2 + (Width - 0.4) * random.NextDouble()),
                1 or 2 => new(0.5 + 2.8 * random.NextDouble(), off),
                _ => new(0.5 + 2.8 * random.NextDouble(), Width - off),
            };
        });

    private static IEnumerable<Situation> Exchanges(TableShape shape, int seed, Func<Random, Vec2> place)
    {
        var random = new Random(seed);
        var judge = new PositionJudge(Player.OfSkill("county"), shape);
        for (var found = 0; found < Positions;)
        {
            List<PlacedBall> balls = [.. Rack.Colours(), .. Rack.Pack().Take(6)];
            while (balls.Count < 16)
            {
                var at = place(random);
                if (shape.CanRest(at) && balls.All(b => b.Gap(at) > 0.02))
                    balls.Add(new(Ball.Red(balls.Count - 5), at));
            }
            var (wx, wy) = (0.1 + 0.5 * random.NextDouble(), 0.1 + (Width - 0.2) * random.NextDouble());
            if (!balls.All(b => b.Gap(new Vec2(wx, wy)) > 0.01))
                continue;
            var situation = Situation.Create(Layout.OfRest([new(Ball.White, wx, wy), .. balls]));
            if (judge.Of(situation, new(situation.Layout, shape)) is { LeavesPot: true } or { Sight.IsSnookered: true })
                continue;
            found++;
            yield return situation;
        }
    }

    /// <summary>
    /// The plain policy: the nearest red that can be clipped thin, on the side from which the white goes on towards a side cushion and back
    /// to baulk, at one pace.
    /// </summary>
    internal static Stroke? Clip(Situation situation)
    {
        var (layout, white) = (situation.Layout, situation.Layout.White.At);
        foreach (var slot in situation.OnSlots().OrderBy(s => (layout.Balls[s].At - white).SquaredLength))
        {
            var towards = layout.Balls[slot].At - white;
            var distance = towards.Length;
            foreach (var side in layout.Balls[slot].Y > Width / 2 ? new[] { 1, -1 } : [-1, 1])
            {
                var aim =
                    towards.Direction + Angle.FromRadians(Math.Asin(Math.Min(1, side * (1 - PlainFullness) * 2 * BallRadius / distance)));
                var way = new Segment(white, white + (distance - 2 * BallRadius) * aim.Unit);
                if (Enumerable.Range(1, layout.Balls.Count - 1).All(i => i == slot || layout.Balls[i].Gap(way) >= 0))
                    return new(aim.Degrees, 0, 0, PlainPace, 0);
            }
        }
        return null;
    }

    private static double LeftAPot(Situation from, Stroke stroke, Player player, TableShape shape)
    {
        var judge = new PositionJudge(player, shape);
        return Share(from, stroke, player.Skill, shape, (played, _) =>
            played.Ruling.Points == 0
            && !played.Ruling.NextFrame.IsOver
            && judge.Of(played.Leaves, new(played.Leaves.Layout, shape)).LeavesPot
        );
    }

    private static double Hits(Situation from, Stroke stroke, Skill skill, TableShape shape) =>
        Share(from, stroke, skill, shape, (_, record) =>
            Contacts.FirstSlot(record) is > 0 and var slot && from.Frame.On.Includes(from.Layout.Balls[slot].Ball)
        );

    private static double Share(Situation from, Stroke stroke, Skill skill, TableShape shape, Func<PlayedStroke, ShotRecord, bool> counts)
    {
        var (simulator, record, random, count) = (new Simulator(shape), new ShotRecord(), new Random(9), 0);
        var scatter = Scatter.Of(from.Layout, stroke, skill, shape);
        for (var i = 0; i < Strokes; i++)
        {
            scatter.Error(StandardDraws.Draw(random)).Play(simulator, from.Layout, stroke, record);
            if (counts(from.Play(simulator, record, null, shape), record))
                count++;
        }
        return (double)count / Strokes;
    }

    /// <summary>A red somewhere up the table, the white behind a baulk colour or another ball.</summary>
    internal static IEnumerable<Situation> Snookers(TableShape shape)
    {
        var random = new Random(47);
        for (var found = 0; found < Positions;)
        {
            var red = new PlacedBall(Ball.Red(1), 1.2 + 2.2 * random.NextDouble(), 0.15 + (Width - 0.3) * random.NextDouble());
            List<PlacedBall> balls = [.. Rack.Colours(), red];
            var hide = balls[random.Next(6)];
            var white = hide.At + (0.06 + 0.15 * random.NextDouble()) * (hide.At - red.At).Unit;
            if (
                !shape.CanRest(white)
                || balls.Any(b => b.Gap(white) <= 0.001)
                || hide.Gap(red.At) < 0.1
                || balls.Take(6).Any(b => b.Gap(red.At) < 0.02)
            )
                continue;
            var situation = Situation.Create(Layout.OfRest([new(Ball.White, white), .. balls]));
            if (!situation.IsSnookered)
                continue;
            found++;
            yield return situation;
        }
    }

    /// <summary>The plain policy: the mirror's way off one cushion that nothing is in, the shortest, plain ball at a medium pace.</summary>
    private static Stroke? Mirror(Situation situation, TableShape shape)
    {
        var layout = situation.Layout;
        var white = layout.White.At;
        return situation
            .OnSlots()
            .SelectMany(slot => MirrorAim.Orders(1).Select(o => (slot, Aim: MirrorAim.Of(white, layout.Balls[slot].At, o, shape))))
            .Where(m =>
                m.Aim is not null
                && Enumerable
                    .Range(1, layout.Balls.Count - 1)
                    .All(i =>
                        i == m.slot
                        || m.Aim.Points.Zip(m.Aim.Points.Skip(1)).All(p => layout.Balls[i].Gap(new Segment(p.First, p.Second)) >= 0)
                    )
            )
            .OrderBy(m => m.Aim!.Points.Zip(m.Aim.Points.Skip(1)).Sum(p => p.First.DistanceTo(p.Second)))
            .Select(m => (Stroke?)new Stroke(m.Aim!.AimDegrees, 0, 0, PlainPace, 0))
            .FirstOrDefault();
    }
}
