using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Reading;

/// <summary>Number of reds in a part of the table.</summary>
/// <param name="Open">Of these, how many have a way into a pocket.</param>
public readonly record struct RedCount(int All, int Open);

/// <summary>
/// Where the reds lie: players keep some in every part of the table. The parts meet half-way between the spots. Common practice, no source.
/// </summary>
/// <param name="Black">Nearer to the black's spot than to the pink's, measured up the table.</param>
/// <param name="Pink">Between that and half-way from blue to pink.</param>
/// <param name="Middle">Between that and half-way from the baulk line to the blue.</param>
/// <param name="Baulk">Below that.</param>
public sealed record RedSpread(RedCount Black, RedCount Pink, RedCount Middle, RedCount Baulk)
{
    private static readonly double BlackFrom = (Spot(Ball.Pink).X + Spot(Ball.Black).X) / 2,
        PinkFrom = (Spot(Ball.Blue).X + Spot(Ball.Pink).X) / 2,
        MiddleFrom = (BaulkLineX + Spot(Ball.Blue).X) / 2;

    /// <summary>Number of reds.</summary>
    public int All => Black.All + Pink.All + Middle.All + Baulk.All;

    /// <summary>Counts the reds of a layout.</summary>
    /// <param name="lines">Ways into the pockets as the layout has its balls.</param>
    public static RedSpread Of(Layout layout, PotLines lines)
    {
        RedCount Between(double from, double to)
        {
            var (all, open) = (0, 0);
            for (var slot = 1; slot < layout.Balls.Count; slot++)
            {
                var ball = layout.Balls[slot];
                if (!ball.Ball.IsRed || ball.X < from || ball.X >= to)
                    continue;
                all++;
                open += lines.IsFree(slot) ? 1 : 0;
            }
            return new(all, open);
        }
        return new(
            Between(BlackFrom, double.PositiveInfinity),
            Between(PinkFrom, BlackFrom),
            Between(MiddleFrom, PinkFrom),
            Between(double.NegativeInfinity, MiddleFrom)
        );
    }
}
