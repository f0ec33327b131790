using DeepBaize.Core.Players;

namespace DeepBaize.Core.Valuing;

/// <summary>
/// A player in the game of visits by which a frame is reckoned, 0–1 each. Fitted to frames that the advice has played against itself
/// (<c>bench -- frames fit</c>); see docs/safety.md, "The chance to win".
/// </summary>
/// <param name="Pot">Chance of the next pot in a break.</param>
/// <param name="Keeps">Given that it goes in, chance that the one after it is as good; over a whole frame, as the next two.</param>
/// <param name="Opening">Chance that a safety of this player leaves the other such a pot.</param>
/// <param name="OpeningAfterMiss">Chance that a miss of this player leaves one.</param>
/// <param name="Long">Chance of the best pot where none is open.</param>
/// <param name="Foul">Chance of a foul in a safety.</param>
/// <param name="Snooker">Of a safety that is played for a snooker, chance that it brings a penalty.</param>
public readonly record struct VisitSkill(
    double Pot,
    double Keeps,
    double Opening,
    double OpeningAfterMiss,
    double Long,
    double Foul,
    double Snooker
)
{
    /// <summary>Share of ordinary shots that leave the white where the next is as ordinary, 0–1.</summary>
    public const double KeepsPosition = 0.95;

    /// <summary>Returns a player of this skill.</summary>
    public static VisitSkill Of(Player player) => Of(Evaluation.OrdinaryPot(player.Skill));

    /// <summary>Pots in a row from an ordinary one on, on the average, as long as the next is as ordinary.</summary>
    public double PotsInARow => Pot / (1 - Pot * Keeps);

    /// <summary>Returns a player by the chance of an ordinary pot, 0–1.</summary>
    public static VisitSkill Of(double ordinary)
    {
        // Between the four presets: learner, club, county, tour.
        double By(double learner, double club, double county, double tour) =>
            PiecewiseLinear.At(ordinary, [(0.35, learner), (0.65, club), (0.89, county), (0.974, tour), (1, tour + 0.3 * (tour - county))]);
        return new(
            Pot: By(0.65, 0.77, 0.865, 0.925),
            Keeps: By(0.4, 0.68, 0.885, 0.945),
            Opening: By(0.15, 0.23, 0.345, 0.33),
            OpeningAfterMiss: By(0.3, 0.56, 0.77, 0.84),
            Long: By(0.14, 0.18, 0.22, 0.25),
            Foul: By(0.09, 0.066, 0.054, 0.036),
            Snooker: By(0.05, 0.05, 0.05, 0.05)
        );
    }
}
