using DeepBaize.Core.Table;

namespace DeepBaize.Core.Rules;

/// <summary>What happened in a stroke, as far as the rules ask.</summary>
/// <param name="First">
/// The ball that the white struck first; null if none. Played away from a touching ball that is on, that ball counts as struck.
/// </param>
/// <param name="Potted">Balls that went in, the white too.</param>
/// <param name="Nominated">The colour nominated, or the free ball.</param>
/// <param name="OffTable">Balls that left the table.</param>
/// <param name="SnookersBehindFreeBall">Whether the white ends snookered behind the free ball that was nominated.</param>
/// <param name="Other">
/// A foul that only the referee sees, with the ball concerned (the white, if it is none of them); null if there was none.
/// </param>
/// <param name="WithFirst">A ball struck at the same moment as the first.</param>
public sealed record StrokeFacts(
    Ball? First,
    IReadOnlyList<Ball> Potted,
    Ball? Nominated = null,
    IReadOnlyList<Ball>? OffTable = null,
    bool SnookersBehindFreeBall = false,
    Ball? Other = null,
    Ball? WithFirst = null
)
{
    public IReadOnlyList<Ball> Gone => OffTable ?? [];
}
