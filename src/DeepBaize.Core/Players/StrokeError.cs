using DeepBaize.Core.Geometry;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Players;

/// <summary>By how much one stroke is off what was meant.</summary>
/// <param name="TurnDegrees">Of the direction in which the cue ball leaves.</param>
/// <param name="Pace">Share of the cue's speed.</param>
/// <param name="Side">Of the contact, as a fraction of the ball's radius; changes the spin only.</param>
/// <param name="Height">The same.</param>
/// <param name="Lay">Says how balls that touch are laid anew in this stroke; 0: as they lie.</param>
public readonly record struct StrokeError(double TurnDegrees, double Pace, double Side, double Height, int Lay = 0)
{
    /// <summary>Of how many independent parts an error is made.</summary>
    public const int Parts = 4;

    /// <summary>A player's error, from standard normal numbers for its parts (docs/model.md, "Skill").</summary>
    public static StrokeError Of(Skill skill, double turn, double pace, double side, double height) =>
        new(turn * skill.DirectionDegrees, pace * skill.PacePercent / 100, side * skill.TipError, height * skill.TipError);

    /// <summary>
    /// By plain random numbers: for what plays independently of all that was told. What the application tells comes from
    /// <c>Sampling.ErrorStream</c>.
    /// </summary>
    public static StrokeError Draw(Random random, Skill skill)
    {
        var (turn, pace) = Normal.Pair(random);
        var (side, height) = Normal.Pair(random);
        return Of(skill, turn, pace, side, height) with { Lay = random.Next(1, int.MaxValue) };
    }

    /// <summary>
    /// The stroke with its errors of direction and pace; those of the tip change only the spin, and are given to the launch.
    /// </summary>
    public Stroke Applied(in Stroke stroke)
    {
        // Nobody swings at less than a fiftieth of what was meant, or harder than can be.
        var speed = Strokes.Pace.CueSpeed(stroke.Pace) * Math.Max(0.02, 1 + Pace);
        return stroke with
        {
            AimDegrees = stroke.AimDegrees + TurnDegrees,
            Pace = Math.Clamp(Strokes.Pace.OfCueSpeed(speed), Strokes.Pace.Slowest, Strokes.Pace.Hardest),
        };
    }

    /// <summary>Plays the stroke with this error from a layout.</summary>
    public void Play(Simulator simulator, Layout layout, in Stroke stroke, ShotRecord? record)
    {
        if (Lay == 0 || layout.Touching == 0)
            simulator.Place(layout.AsSpan());
        else
            PlaceAnew(simulator, layout);
        simulator.Release([(0, Applied(stroke).ToStrike().Launch(simulator.Conditions, Side, Height))], record);
    }

    private void PlaceAnew(Simulator simulator, Layout layout)
    {
        Span<PlacedBall> balls = stackalloc PlacedBall[Ball.Count];
        balls = balls[..layout.Balls.Count];
        layout.AsSpan().CopyTo(balls);
        Relaid.Lay(balls, layout.Touching, Lay);
        simulator.Place(balls);
    }

    /// <summary>Whether the stroke with this error pots the ball.</summary>
    public bool Pots(PotTrial trial, in Stroke stroke) => trial.Pots(Applied(stroke), Side, Height, Lay);
}
