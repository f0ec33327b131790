using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Search;

/// <summary>The safeties that anybody thinks of first.</summary>
public enum PlainIdea
{
    /// <summary>A ball is clipped thin and the white runs back to baulk.</summary>
    ThinClip,

    /// <summary>The white is rolled up to a ball and stays by it.</summary>
    RollUp,

    /// <summary>The ball comes back off its cushion and meets the white again.</summary>
    DoubleKiss,

    /// <summary>The white ends behind a colour.</summary>
    BehindColour,

    /// <summary>The ball ends on a cushion.</summary>
    ToCushion,
}

/// <summary>Tells which idea a safety is, as it is meant.</summary>
public static class PlainIdeas
{
    private const double ThinAt = 0.7,
        Close = 0.06,
        Soft = 3.5;

    /// <summary>The idea; null if it is none of the plain ones.</summary>
    public static PlainIdea? Of(TriedSafety tried)
    {
        var (layout, slot) = (tried.Played.Leaves.Layout, tried.Slot);
        if (tried.Route.Balls.Contains(slot))
            return PlainIdea.DoubleKiss;
        if (Math.Abs(tried.Offset) > ThinAt && layout.White.X < BaulkLineX)
            return PlainIdea.ThinClip;
        if (tried.Leave.Sight.HiddenBy is { IsColour: true } && tried.Leave.Sight.IsSnookered)
            return PlainIdea.BehindColour;
        if (tried.Route.Balls.Count > 0)
            return null;
        if (tried.Stroke.Pace < Soft && layout.Balls.Skip(1).Any(b => b.Gap(layout.White.At) < Close))
            return PlainIdea.RollUp;
        return layout.Balls.Count > slot && Cushions.Clearance(layout.Balls[slot].At) < BallRadius / 2 ? PlainIdea.ToCushion : null;
    }
}
