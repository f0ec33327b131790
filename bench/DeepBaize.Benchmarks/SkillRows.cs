using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;

namespace DeepBaize.Benchmarks;

/// <summary>A stroke of which it is known in how many of a hundred players bring it off.</summary>
/// <param name="Wanted">By the presets in their order; common practice, from memory.</param>
/// <param name="Strokes">Of several the mean counts.</param>
/// <param name="Goal">If set, where the white is to stop, pot or no pot; else the pot counts.</param>
internal sealed record SkillRow(string Name, double[] Wanted, IReadOnlyList<StandardShot> Strokes, Goal? Goal = null)
{
    private static readonly TableShape Shape = new(Conditions.Default);

    /// <summary>The share that a player of this skill brings off, with what the reach costs.</summary>
    public double Share(Skill skill, int strokes, string stream = "spread") =>
        Strokes.Average(shot => ShareOf(shot, Goal, skill, strokes, stream));

    private static double ShareOf(StandardShot shot, Goal? goal, Skill skill, int strokes, string stream)
    {
        var able = skill.Times(Reach.Of(shot.Layout, shot.Stroke, Player.Default).ErrorFactor);
        var odds = Spread
            .Sample(
                new(shot.Layout, shot.Stroke, shot.Pot, able, Shape, goal),
                Workers.Shared(),
                SpreadEffort.Of(strokes),
                ErrorStream.Named(stream),
                outlines: false
            )
            .Odds;
        return goal is null ? odds.Pot.Value : odds.Wanted.Value;
    }

    /// <summary>The rows of the table in docs/model.md, "How people miss".</summary>
    public static IReadOnlyList<SkillRow> All { get; } =
    [
        new(
            "straight, 1.8 m to the red and 1.8 m on to a corner at 18° to the cushion, pace 5",
            [70, 45, 22, 7],
            [Red(18, 1.8, 1.8, 0, 5)]
        ),
        new("black off its spot, half-ball, white 0.5 m away, pace 4", [99, 97, 85, 52], [Black(0, 4)]),
        new("the same with one tip of side, pace 6 (helping and the other, on the average)", [97, 90, 68, 38], [Black(1, 6), Black(-1, 6)]),
        new(
            "three-quarter ball, 0.4 m to the red, 0.5 m on to a corner, pace 3.5",
            [99.8, 99.5, 98.5, 94],
            [Red(45, 0.5, 0.4, 14.4775, 3.5)]
        ),
        new("60° cut, 0.6 m to the red, 0.8 m on, pace 4", [97, 85, 57, 27], [Red(45, 0.8, 0.6, 60, 4)]),
        Running("white stops within 150 mm of a place 1.5 m on from an easy pot, off one cushion", [80, 60, 38, 18]),
    ];

    private static StandardShot Red(double degrees, double toPocket, double toRed, double cut, double pace) =>
        StandardShots.Red(Shape, degrees, toPocket, toRed, cut, pace);

    private static StandardShot Black(double side, double pace) => StandardShots.Black(Shape, 0.5, side, pace);

    private static SkillRow Running(string name, double[] wanted)
    {
        var (shot, rest, cushions) = StandardShots.Running(Shape, 1.5);
        return cushions == 1
            ? new(name, wanted, [shot], StopIn.Create(rest.X, rest.Y, 0.15))
            : throw new InvalidOperationException("The stroke is not the one that is described.");
    }
}
