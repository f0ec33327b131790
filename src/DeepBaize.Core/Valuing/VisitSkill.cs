using DeepBaize.Core.Players;

namespace DeepBaize.Core.Valuing;

/// <summary>
/// A player in the game of visits by which a frame is reckoned, 0–1 each. Fitted to frames that the advice has played against itself
/// (<c>bench -- frames fit</c>); see docs/safety.md, "The chance to win".
/// </summary>
/// <param name="Pot">Chance of the next pot in a break.</param>
/// <param name="Keeps">Given that it goes in, chance that the one after it is as good.</param>
/// <param name="Opening">Chance that a safety of this player leaves the other such a pot.</param>
/// <param name="OpeningAfterMiss">Chance that a miss of this player leaves one.</param>
/// <param name="Long">Chance of the best pot where none is open.</param>
/// <param name="Foul">Chance of a foul in a safety.</param>
/// <param name="Pays">Chance that the other player's reply to a safety is a foul.</param>
public readonly record struct VisitSkill(
    double Pot,
    double Keeps,
    double Opening,
    double OpeningAfterMiss,
    double Long,
    double Foul,
    double Pays
)
{
    /// <summary>Share of ordinary shots that leave the white where the next is as ordinary, 0–1.</summary>
    public const double KeepsPosition = 0.95;

    /// <summary>Returns a player of this skill.</summary>
    public static VisitSkill Of(Player player)
    {
        var pot = Evaluation.OrdinaryPot(player.Skill);
        double By(ReadOnlySpan<(double, double)> points) => PiecewiseLinear.At(pot, points);
        return new(
            pot,
            KeepsPosition,
            Opening: By([(0.6, 0.45), (0.86, 0.34), (0.96, 0.28), (0.99, 0.2)]),
            OpeningAfterMiss: By([(0.6, 0.55), (0.86, 0.5), (0.96, 0.5), (0.99, 0.5)]),
            Long: By([(0.6, 0.1), (0.86, 0.18), (0.96, 0.3), (0.99, 0.45)]),
            Foul: By([(0.6, 0.12), (0.86, 0.06), (0.96, 0.03), (0.99, 0.02)]),
            Pays: By([(0.6, 0.02), (0.86, 0.03), (0.96, 0.03), (0.99, 0.03)])
        );
    }
}
