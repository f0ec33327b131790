using DeepBaize.Core.Practice;

namespace DeepBaize.Core.Tests.Practice;

/// <summary>Weeks of unlike routines, brought to one mix: worked by hand.</summary>
public class StandardisedShareTests
{
    private static Dictionary<string, SuccessCount> Counts(params (string Routine, int Done, int Of)[] counts) =>
        counts.ToDictionary(c => c.Routine, c => new SuccessCount(c.Done, c.Of));

    [Fact]
    public void A_week_of_easy_routines_is_no_progress()
    {
        // Easy 90 of 100 and hard 30 of 100, as good in both weeks; the second is nearly all easy.
        var all = Counts(("easy", 90, 100), ("hard", 30, 100));
        var hardWeek = StandardisedShare.Of(Counts(("easy", 18, 20), ("hard", 24, 80)), all)!;
        var easyWeek = StandardisedShare.Of(Counts(("easy", 72, 80), ("hard", 6, 20)), all)!;
        // Added up they would be 42 % and 78 %.
        Assert.Equal(0.6, hardWeek.Share, 1e-12);
        Assert.Equal(0.6, easyWeek.Share, 1e-12);
        Assert.Equal(1, easyWeek.Covered);
    }

    [Fact]
    public void With_every_routine_played_it_is_the_directly_standardised_share()
    {
        // Weights 100 and 300: (100 · 8/10 + 300 · 5/20) / 400 = 0.3875.
        var week = StandardisedShare.Of(Counts(("a", 8, 10), ("b", 5, 20)), Counts(("a", 70, 100), ("b", 60, 300)))!;
        Assert.Equal(0.3875, week.Share, 1e-12);
        // 10/14 · 4/14 / 14 and 7/24 · 17/24 / 24, weighted by the squares of a quarter and three quarters.
        var error = Math.Sqrt(0.0625 * (10.0 / 14 * 4 / 14 / 14) + 0.5625 * (7.0 / 24 * 17 / 24 / 24));
        Assert.Equal(0.3875 - 1.959964 * error, week.Low, 1e-6);
        Assert.Equal(0.3875 + 1.959964 * error, week.High, 1e-6);
    }

    [Fact]
    public void A_routine_that_was_not_played_says_nothing_and_one_that_went_better_lifts_the_week()
    {
        var all = Counts(("a", 50, 100), ("b", 20, 100));
        var week = StandardisedShare.Of(Counts(("a", 6, 10)), all)!;
        Assert.Equal(0.45, week.Share, 1e-12);
        Assert.Equal(0.5, week.Covered);
        Assert.Null(StandardisedShare.Of(Counts(), all));
    }
}
