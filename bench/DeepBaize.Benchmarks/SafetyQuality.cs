using System.Globalization;
using DeepBaize.Core.Advice.Decide;
using DeepBaize.Core.Advice.Escape;
using DeepBaize.Core.Geometry;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
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

    /// <summary>Mid-frame tables without an easy pot: the white in baulk or by a cushion, reds about the pack.</summary>
    internal static IEnumerable<Situation> Exchanges(TableShape shape)
    {
        var random = new Random(31);
        var judge = new LeaveJudge(Player.OfSkill("county"), shape);
        for (var found = 0; found < Positions;)
        {
            List<PlacedBall> balls = [.. Rack.Colours(), .. Rack.Pack().Take(6)];
            while (balls.Count < 16)
            {
                var (x, y) = (1.9 + 1.5 * random.NextDouble(), 0.1 + (Width - 0.2) * random.NextDouble());
                if (balls.All(b => b.Gap(new Vec2(x, y)) > 0.02))
                    balls.Add(new(Ball.Red(balls.Count - 5), x, y));
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
    private static Stroke? Clip(Situation situation)
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
        var judge = new LeaveJudge(player, shape);
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
