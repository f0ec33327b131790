using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Table;

/// <summary>The stretches of the table that players speak of, from baulk upwards.</summary>
public enum Stretch
{
    /// <summary>In baulk.</summary>
    Baulk,

    /// <summary>Between the baulk line and the blue.</summary>
    BelowBlue,

    /// <summary>Between the blue and the pink.</summary>
    BlueToPink,

    /// <summary>Between the pink and the black.</summary>
    PinkToBlack,

    /// <summary>Behind the black.</summary>
    BehindBlack,
}

/// <summary>Where a ball lies as players say it: the stretch of the table, how far from the nearest cushion and spot.</summary>
/// <param name="FromCushion">From touching the cushion, m; 0 tight on it.</param>
/// <param name="Spot">The colour whose spot is nearest.</param>
/// <param name="FromSpot">From the spot to the ball's centre, m.</param>
public sealed record Whereabouts(Stretch Stretch, Cushion Cushion, double FromCushion, Ball Spot, double FromSpot)
{
    /// <summary>Returns the whereabouts of a place, m.</summary>
    public static Whereabouts Of(Vec2 ball)
    {
        var spot = Ball.Colours.MinBy(c => Dimensions.Spot(c).DistanceTo(ball));
        return new(
            ball.X switch
            {
                <= BaulkLineX => Stretch.Baulk,
                <= Length / 2 => Stretch.BelowBlue,
                <= 3 * Length / 4 => Stretch.BlueToPink,
                <= Length - BlackFromTopCushion => Stretch.PinkToBlack,
                _ => Stretch.BehindBlack,
            },
            Cushions.Nearest(ball),
            Math.Max(0, Cushions.Clearance(ball)),
            spot,
            Dimensions.Spot(spot).DistanceTo(ball)
        );
    }
}
