using DeepBaize.Core.Practice;

namespace DeepBaize.Core.Tests.Practice;

/// <summary>A player's form: what goes better, what slips, and why attempts fail.</summary>
public class PlayerFormTests
{
    private static readonly DateTimeOffset Now = new(2026, 11, 30, 12, 0, 0, TimeSpan.Zero);

    private static IEnumerable<CountedAttempt> Attempts(int step, int daysAgo, int done, int of, string reason = "thick") =>
        Enumerable
            .Range(0, of)
            .Select(i => new CountedAttempt(
                Guid.Empty,
                Now.AddDays(-daysAgo).AddMinutes(i),
                step,
                IsMirrored: false,
                i < done,
                i < done ? [] : [reason]
            ));

    private static PlayerForm FormOf(params (string Routine, IEnumerable<CountedAttempt> Attempts)[] routines) =>
        PlayerForm.Of(routines.ToDictionary(r => r.Routine, r => (IReadOnlyList<CountedAttempt>)[.. r.Attempts]), Now);

    [Fact]
    public void What_goes_better_and_worse_is_told_with_the_clearest_first()
    {
        var form = FormOf(
            ("clearly", [.. Attempts(0, 20, 2, 20), .. Attempts(0, 2, 18, 20)]),
            ("a little", [.. Attempts(0, 20, 10, 20), .. Attempts(0, 2, 12, 20)]),
            ("slips", [.. Attempts(0, 20, 18, 20), .. Attempts(0, 2, 3, 20)]),
            ("new", Attempts(0, 1, 5, 15))
        );
        Assert.Equal(["clearly", "a little"], form.Up.Select(r => r.Routine));
        Assert.Equal(Progression.Better, form.Up[0].Change.Verdict);
        Assert.Equal(Progression.NotYet, form.Up[1].Change.Verdict);
        var slips = Assert.Single(form.Down);
        Assert.Equal(("slips", Progression.Worse, 3), (slips.Routine, slips.Change.Verdict, slips.Now.Done));
    }

    [Fact]
    public void Harder_steps_that_come_later_are_no_worse_form()
    {
        // A ladder played up once: the last steps fail because they are hard.
        var ladder = FormOf(("ladder", [.. Attempts(0, 3, 18, 20), .. Attempts(1, 2, 2, 20)]));
        Assert.Empty(ladder.Down.Where(r => r.Change.Verdict == Progression.Worse));
        // Ten and then eight of ten at the first step, two and then none at the second.
        Assert.Equal(-0.2, ladder.Down.Concat(ladder.Up).Single().Change.Difference, 1);
    }

    [Fact]
    public void Reasons_of_the_last_four_weeks_count_and_older_ones_do_not()
    {
        var form = FormOf(("a", [.. Attempts(0, 40, 0, 9, "thin"), .. Attempts(0, 5, 0, 4, "thick")]), ("b", Attempts(0, 3, 1, 3, "soft")));
        Assert.Equal([("thick", 4, 6), ("soft", 2, 6)], form.Causes.Select(c => (c.Reason, c.Times, c.Missed)));
    }
}
