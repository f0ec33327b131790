using DeepBaize.Core.Geometry;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;

namespace DeepBaize.Benchmarks;

/// <summary>A stroke of which it is known in how many of a hundred players bring it off.</summary>
/// <param name="Wanted">By the presets in their order; common practice, from memory.</param>
/// <param name="Shares">The share that a player of a skill brings off: of one stroke, or of several whose mean counts.</param>
internal sealed record SkillRow(string Name, double[] Wanted, params IReadOnlyList<SkillRow.Played> Shares)
{
    /// <summary>Plays a number of strokes with the errors of a stream; the share that comes off.</summary>
    public delegate double Played(Skill skill, int strokes, string stream);

    private static readonly TableShape Shape = new(Conditions.Default);

    /// <summary>The share that a player of this skill brings off.</summary>
    public double Share(Skill skill, int strokes, string stream = "spread") => Shares.Average(played => played(skill, strokes, stream));

    /// <summary>The rows of the table in docs/model.md, "How people miss".</summary>
    public static IReadOnlyList<SkillRow> All { get; } =
    [
        new(
            "straight, 1.8 m to the red and 1.8 m on to a corner at 18° to the cushion, pace 5",
            [77, 51, 25, 10],
            Pot(Red(18, 1.8, 1.8, 0, 5))
        ),
        new(
            "a long red in the open: white 2.5 m, 0.7 m on to a corner, cut 20°, pace 4.5",
            [76, 51, 29, 13],
            Pot(StandardShots.OpenRed(Shape))
        ),
        new("black off its spot, half-ball, white 0.5 m away, pace 4", [99, 95, 77, 46], Pot(Black(0, 4))),
        new("the same with the rest or the other hand", [98, 90, 64, 32], Pot(Black(0, 4), s => s.RestFactor)),
        new(
            "the same with one tip of side, pace 6 (helping and the other, on the average)",
            [95, 85, 62, 35],
            Pot(Black(1, 6)),
            Pot(Black(-1, 6))
        ),
        new(
            "three-quarter ball, 0.4 m to the red, 0.5 m on to a corner, pace 3.5",
            [99.8, 99.3, 98, 91],
            Pot(Red(45, 0.5, 0.4, 14.4775, 3.5))
        ),
        new("60° cut, 0.6 m to the red, 0.8 m on, pace 4", [97, 89, 63, 31], Pot(Red(45, 0.8, 0.6, 60, 4))),
        new("an eighth of a red struck, at all, from 2 m away, pace 5", [99.9, 99.4, 95, 82], Thin()),
        new("straight, 0.9 m to the red and 0.75 m on, pace 5", [99, 98, 95, 72], Pot(Red(40, 0.75, 0.9, 0, 5))),
        new("the same, pace 9", [97, 91, 65, 33], Pot(Red(40, 0.75, 0.9, 0, 9))),
        new(
            "a double: the ball 100 mm off the cushion, 1.7 m on into the middle pocket opposite, white 0.5 m away, cut 30°",
            [80, 60, 40, 20],
            Pot(StandardShots.Double(Shape))
        ),
        new("a lone ball hit off one cushion, 2.5 m of way", [96, 83, 64, 40], Kick(1)),
        new("a lone ball hit off two cushions, 4 m of way", [80, 57, 38, 22], Kick(2)),
        new("a lone ball hit off three cushions, 5 m of way", [56, 36, 22, 12], Kick(3)),
        Running("white stops within 150 mm of a place 1.5 m on from an easy pot, off one cushion", [80, 60, 38, 18]),
    ];

    private static StandardShot Red(double degrees, double toPocket, double toRed, double cut, double pace) =>
        StandardShots.Red(Shape, degrees, toPocket, toRed, cut, pace);

    private static StandardShot Black(double side, double pace) => StandardShots.Black(Shape, 0.5, side, pace);

    /// <summary>The share of pots, with what the reach costs or with a factor of the player's own.</summary>
    private static Played Pot(StandardShot shot, Func<Skill, double>? factor = null) =>
        (skill, strokes, stream) => OddsOf(shot, null, skill, factor?.Invoke(skill), strokes, stream).Pot.Value;

    private static SpreadOdds OddsOf(StandardShot shot, Goal? goal, Skill skill, double? factor, int strokes, string stream)
    {
        var player = Player.Default with { Skill = skill };
        var able = skill.Times(factor ?? Reach.Of(shot.Layout, shot.Stroke, player).ErrorFactor);
        return Spread
            .Sample(
                new(shot.Layout, shot.Stroke, shot.Pot, able, Shape, goal),
                Workers.Shared(),
                SpreadEffort.Of(strokes),
                ErrorStream.Named(stream),
                outlines: false
            )
            .Odds;
    }

    /// <summary>The share of strokes in which the white meets the ball at all.</summary>
    private static Played Meets(Layout layout, Stroke stroke) =>
        (skill, strokes, stream) =>
        {
            var player = Player.Default with { Skill = skill };
            var scatter = Scatter.Of(layout, stroke, skill.Times(Reach.Of(layout, stroke, player).ErrorFactor), Shape);
            var (simulator, record, errors) = (new Simulator(Shape, Simulator.Coarse), new ShotRecord(), ErrorStream.Named(stream));
            var met = 0;
            for (var i = 0; i < strokes; i++)
            {
                scatter.Error(errors.At(i)).Play(simulator, layout, stroke, record);
                met += record.Events.Any(e => e.IsOfWhiteWithBall) ? 1 : 0;
            }
            return (double)met / strokes;
        };

    /// <summary>An eighth of the ball: the white's middle passes 7/8 of a ball's width from the red's.</summary>
    private static Played Thin()
    {
        const double away = 2;
        var (white, red) = (new Vec2(0.8, 0.7), new Vec2(0.8 + away, 0.9));
        var across = Math.Asin(0.875 * 2 * Dimensions.BallRadius / white.DistanceTo(red)) * 180 / Math.PI;
        var layout = Layout.OfRest([new(Ball.White, white), new(Ball.Red(1), red)]);
        var stroke = new Stroke((red - white).Direction.Degrees + across, 0, 0, 5, Player.Default.NaturalElevation);
        return Meets(layout, stroke);
    }

    /// <summary>A red in the open, met by the white off so many cushions in the way that is told.</summary>
    private static Played Kick(int cushions)
    {
        var (white, red) = cushions switch
        {
            1 => (new Vec2(0.9, 0.5), new Vec2(1.9, 0.6)),
            2 => (new Vec2(1.2, 0.6), new Vec2(2.2, 0.5)),
            _ => (new Vec2(1.5, 0.45), new Vec2(1.2, 0.9)),
        };
        var wanted = cushions switch
        {
            1 => 2.5,
            2 => 4.0,
            _ => 5.0,
        };
        var layout = Layout.OfRest([new(Ball.White, white), new(Ball.Red(1), red)]);
        var (simulator, record) = (new Simulator(Shape), new ShotRecord());
        // Of all aims that meet it off so many cushions, full in the face as nearly as can be, the one whose way is nearest to that length.
        (double Penalty, Stroke Stroke)? best = null;
        var run = new List<(double Aim, double Way)>();
        for (var aim = 0.0; aim <= 360; aim += 0.1)
        {
            var stroke = new Stroke(aim, 0, 0, 5, Player.Default.NaturalElevation);
            var line = AimLine.Of(layout, stroke, simulator, record);
            var isIt = line.Cushions == cushions && double.IsFinite(line.Distance) && record.Events.All(e => e.Kind != ShotEventKind.Jaw);
            if (isIt)
                run.Add((aim, line.Distance));
            if (isIt || run.Count == 0)
                continue;
            // The middle of a run of aims that meet the ball is its middle.
            var (middle, way) = run[run.Count / 2];
            var penalty = Math.Abs(way - wanted);
            if (run.Count >= 3 && (best is null || penalty < best.Value.Penalty))
                best = (penalty, stroke with { AimDegrees = middle });
            run.Clear();
        }
        if (best is not { Penalty: < 0.5 } found)
            throw new InvalidOperationException($"No way off {cushions} cushions is so long.");
        return Meets(layout, found.Stroke);
    }

    private static SkillRow Running(string name, double[] wanted)
    {
        var (shot, rest, cushions) = StandardShots.Running(Shape, 1.5);
        var goal = StopIn.Create(rest.X, rest.Y, 0.15);
        return cushions == 1
            ? new(name, wanted, (skill, strokes, stream) => OddsOf(shot, goal, skill, null, strokes, stream).Wanted.Value)
            : throw new InvalidOperationException("The stroke is not the one that is described.");
    }
}
