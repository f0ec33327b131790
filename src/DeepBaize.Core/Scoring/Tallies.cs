using DeepBaize.Core.Rules;

namespace DeepBaize.Core.Scoring;

/// <summary>How often strokes of a kind were played, and how many of them potted what they were played at.</summary>
public sealed record TagTally(StrokeTag Tag, int Played, int Potted);

/// <summary>How often breaks ended at a kind of ball for a reason; null for none named.</summary>
public sealed record EndTally(BallOn On, ShotKind Kind, EndReason? Why, int Count);

/// <summary>One player's figures.</summary>
public sealed record PlayerTally(
    int Points,
    int Pots,
    int Misses,
    int Safeties,
    int Fouls,
    int PointsGivenAway,
    int HighestBreak,
    IReadOnlyList<TagTally> Tags,
    IReadOnlyList<EndTally> Ends
)
{
    /// <summary>Of the shots played at a pot, the share that went in; 0 if there was none.</summary>
    public double PotShare => Pots + Misses == 0 ? 0 : (double)Pots / (Pots + Misses);
}
