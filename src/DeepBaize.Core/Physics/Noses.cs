using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Physics;

/// <summary>Where the straight noses of the four sides begin and end, between the mouths of the pockets.</summary>
internal sealed class Noses(TableShape shape)
{
    private readonly double _corner = shape.CornerNoseStart,
        _middleLow = Length / 2 - shape.MiddleNoseEnd,
        _middleHigh = Length / 2 + shape.MiddleNoseEnd;

    /// <summary>Whether a ball beside a place (m) would meet the straight nose of a side, and not a mouth.</summary>
    /// <param name="side">0 baulk, 1 top, 2 right (y = 0), 3 left.</param>
    public bool Has(int side, double x, double y) =>
        side < 2 ? y >= _corner && y <= Width - _corner : x >= _corner && x <= Length - _corner && !(x > _middleLow && x < _middleHigh);
}
