using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;

namespace DeepBaize.Core.Search;

/// <summary>A pot that a stroke is played for.</summary>
/// <param name="Nominated">The colour or free ball that the player names; the potted ball otherwise.</param>
public sealed record Target(Pot Pot, Ball Nominated, Cut Cut);

/// <summary>Probabilities of the outcomes of a stroke, 0–1.</summary>
/// <param name="Chance">Probability that the stroke scores.</param>
/// <param name="Foul">Probability that it ends in a foul, above all the white going in.</param>
/// <param name="Holds">Given that it scores, probability that the next pot is better than even.</param>
/// <param name="Miscue">Probability of a miscue; null for a stroke that has been chosen but not yet reported.</param>
public readonly record struct ChoiceOdds(Estimate Chance, Estimate Foul, Estimate Holds, Estimate? Miscue = null);

/// <summary>A stroke that pots a ball on, and its value.</summary>
/// <param name="Stroke">The stroke with the aim that pots the ball.</param>
/// <param name="Value">Expected value, in the measure of the answer (<see cref="IObjective"/>).</param>
/// <param name="Gain">Points of the stroke if it scores.</param>
/// <param name="Outcome">The outcome of the stroke played without error.</param>
/// <param name="Next">Evaluation of the table after that outcome.</param>
public sealed record Choice(
    Target Target,
    Stroke Stroke,
    Reach Reach,
    ChoiceOdds Odds,
    Estimate Value,
    double Gain,
    PlayedStroke Outcome,
    Quality Next
)
{
    /// <summary>Names the idea (ball, pocket, what the white does) for as long as a search goes on; empty if it was not named.</summary>
    public string Id { get; init; } = "";

    /// <summary>Mean value of the outcomes that score, in the measure of the answer.</summary>
    public double IfScores { get; init; }

    /// <summary>Mean value of those that do not: of what they leave.</summary>
    public double IfMissed { get; init; }

    /// <summary>What the white does after its first contact.</summary>
    public required Route Route { get; init; }

    /// <summary>The ball and pocket.</summary>
    public Pot Pot => Target.Pot;

    /// <summary>The ball that the player names.</summary>
    public Ball Nominated => Target.Nominated;

    /// <summary>Probability that the stroke scores, 0–1.</summary>
    public double Chance => Odds.Chance.Value;

    /// <summary>The table after the stroke played without error.</summary>
    public Situation Leaves => Outcome.Leaves;
}
