using DeepBaize.Core.Strokes;

namespace DeepBaize.Core.Tests.Strokes;

public class ArrivalTests
{
    // Names by the share of a rolling ball's spin: common practice, no source.
    [Theory]
    [InlineData(-0.9, StrokeKind.Screw)]
    [InlineData(-0.2, StrokeKind.StunScrew)]
    [InlineData(0, StrokeKind.Stun)]
    [InlineData(0.3, StrokeKind.StunRunThrough)]
    [InlineData(1, StrokeKind.Follow)]
    public void The_spin_at_arrival_has_the_trades_name(double follow, StrokeKind kind) =>
        Assert.Equal(kind, new Arrival(1.5, follow, 0, 0, 0, 0).Kind);
}
