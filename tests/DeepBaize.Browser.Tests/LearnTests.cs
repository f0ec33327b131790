using OpenQA.Selenium;

namespace DeepBaize.Browser.Tests;

/// <summary>A table is learnt in a few strokes, its figures are taken over and given back: by mouse and by touch.</summary>
[Collection("second desk")]
[BrowsersGoBack]
public class LearnTests(SecondDesk desk)
{
    private static int Trials(Page page) => page.Driver.FindElements(By.CssSelector("[data-testid=learning-trial]")).Count;

    [Fact]
    public void A_made_up_table_is_learnt_taken_over_and_given_back()
    {
        var page = desk.Open();
        page.Visit("/practice");
        page.Click(() => page.Find("learn-table"));
        page.Find("teaching-stroke");
        // The club's table may have been played on before.
        var before = Trials(page);
        for (var i = before + 1; i <= before + 3; i++)
        {
            page.Click(() => page.Find("stand-in"));
            page.Until(() => Trials(page) == i);
        }
        Assert.Contains("before the first stroke", page.Text("knowledge"));
        // One was misread: it goes, and the list is one shorter.
        page.Click(() => page.Css("[data-testid=learning-trial] button"));
        page.Until(() => Trials(page) == before + 2);
        page.Click(() => page.Find("stand-in"));
        page.Until(() => Trials(page) == before + 3 && page.Find("take-table").Enabled);

        page.Click(() => page.Find("take-table"));
        page.Click(() => page.Css(".el-message-box__btns .el-button--primary"));
        page.Until(() => page.HasNotice("has the figures you learnt"));
        Assert.Matches("[+−]\\d+ %|new", page.Text("taken"));
        page.Click(() => page.Css("[data-testid=taken] button"));
        page.Until(() => page.Text("taken").Contains("undone", StringComparison.Ordinal));
    }

    [Fact]
    public void What_to_practise_is_told_in_points_and_frames_with_what_routines_have_shown()
    {
        var page = desk.Open();
        page.Visit("/practice/learn");
        page.Click(() => page.Find("learn-gain"));
        page.Says("gain", "points a visit");
        Assert.Contains("more frames of a hundred", page.Text("gain"));
        Assert.Matches("Lately: .+ of \\d+|Nothing practised", page.Text("gain"));
    }

    [Fact]
    public void A_thumb_shows_where_the_white_stopped()
    {
        var page = desk.Open(390, 844, touch: true);
        page.Visit("/practice/learn");
        page.Find("teaching-stroke");
        var before = Trials(page);
        Assert.False(page.Find("keep-trial").Enabled);
        page.Tap(() => page.Find("count-plan"));
        page.Until(() => page.Find("keep-trial").Enabled);
        page.Tap(() => page.Find("keep-trial"));
        page.Until(() => Trials(page) == before + 1);
    }
}
