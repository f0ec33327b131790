using DeepBaize.Core.Physics;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Players;

/// <summary>By how much one stroke is off what was meant.</summary>
/// <param name="TurnDegrees">Error of the direction in which the cue ball leaves, degrees; of a miscue, off the line of aim.</param>
/// <param name="Pace">Error of the cue's speed, as a share of it.</param>
/// <param name="Side">Sideways error of the contact, as a fraction of the ball's radius; changes the spin only.</param>
/// <param name="Height">Vertical error of the contact, as a fraction of the ball's radius; changes the spin only.</param>
/// <param name="JitterSeed">Seed of the jitter of touching balls; 0: none.</param>
public readonly record struct StrokeError(double TurnDegrees, double Pace, double Side, double Height, int JitterSeed = 0)
{
    // A miscue: the ball leaves with a share of its speed, about the line. docs/model.md, "How people miss".
    private const double LeastSlip = 0.3,
        MostSlip = 0.6,
        SlipTurnDegrees = 10;

    /// <summary>Nobody swings at less than this share of what was meant.</summary>
    private const double LeastSpeed = 0.02;

    /// <summary>By how much cushions are off in this stroke.</summary>
    public ReboundError Rebounds { get; init; }

    /// <summary>Of a miscue, the share of its speed that the ball leaves with; 0: the tip holds.</summary>
    public double Slip { get; init; }

    /// <summary>Whether the tip slips off the ball.</summary>
    public bool IsMiscue => Slip > 0;

    /// <summary>An error that meets a stroke of this tip: if it takes the tip out of the miscue circle, the tip slips off.</summary>
    /// <param name="slipSpeed">How fast the ball then leaves, and how far to the left, among all that can be, 0–1.</param>
    /// <param name="slipTurn"><inheritdoc cref="StrokeError" path="/param[@name='slipSpeed']"/></param>
    public StrokeError At(in Strike meant, double slipSpeed, double slipTurn)
    {
        var (side, height) = (meant.Side + Side, meant.Height + Height);
        if (side * side + height * height <= Strike.MiscueLimit * Strike.MiscueLimit)
            return this;
        return this with
        {
            TurnDegrees = SlipTurnDegrees * (2 * slipTurn - 1),
            Slip = LeastSlip + (MostSlip - LeastSlip) * slipSpeed,
            Side = 0,
            Height = 0,
        };
    }

    /// <summary>How the cue ball leaves if a stroke is played with this error.</summary>
    public BallMotion Launch(in Stroke stroke, Conditions conditions)
    {
        var strike = stroke.ToStrike().With(TurnDegrees, Math.Max(LeastSpeed, 1 + Pace));
        return IsMiscue ? strike.LaunchSlipping(conditions, Slip) : strike.Launch(conditions, Side, Height);
    }

    /// <summary>Plays the stroke with this error from a layout.</summary>
    /// <param name="until">Asked after each event whether enough has been seen; by default to the end.</param>
    public void Play(Simulator simulator, Layout layout, in Stroke stroke, ShotRecord? record, Func<bool>? until = null)
    {
        if (JitterSeed == 0 || layout.Touching == 0)
            simulator.Place(layout.AsSpan());
        else
            PlaceAnew(simulator, layout);
        simulator.ReboundError = Rebounds;
        simulator.Release([(0, Launch(stroke, simulator.Conditions))], record, until);
    }

    private void PlaceAnew(Simulator simulator, Layout layout)
    {
        Span<PlacedBall> balls = stackalloc PlacedBall[Ball.Count];
        balls = balls[..layout.Balls.Count];
        layout.AsSpan().CopyTo(balls);
        Jitter.Apply(balls, layout.Touching, JitterSeed);
        simulator.Place(balls);
    }

    /// <summary>Whether the stroke with this error pots the ball.</summary>
    public bool Pots(PotTrial trial, in Stroke stroke) => trial.Pots(Launch(stroke, trial.Conditions), JitterSeed, Rebounds);
}
