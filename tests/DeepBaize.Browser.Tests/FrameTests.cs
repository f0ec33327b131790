using OpenQA.Selenium;

namespace DeepBaize.Browser.Tests;

/// <summary>A frame written down by taps, on the desk and on a phone.</summary>
[Collection("second desk")]
[BrowsersGoBack]
public class FrameTests(SecondDesk desk)
{
    private static void Begin(Page page, string title)
    {
        page.Visit("/frames");
        page.Click(() => page.Find("frame-title"));
        page.Find("frame-title").SendKeys(title);
        page.Find("frame-first").SendKeys("Tilda");
        page.Find("frame-second").SendKeys("Orrin");
        page.Click(() => page.Find("begin-frame"));
        page.Find("pot-red");
    }

    private static void Tap(Page page, string testId, string score)
    {
        page.Click(() => page.Find(testId));
        page.Until(() => $"{page.Text("score-0")}–{page.Text("score-1")}" == score);
    }

    [Theory]
    [InlineData(1280, 800)]
    [InlineData(390, 780)]
    public void Each_shot_is_a_tap_and_the_last_can_be_taken_back(int width, int height)
    {
        var page = desk.Open(width, height);
        Begin(page, $"Frame at {width}");
        Tap(page, "pot-red", "1–0");
        page.Click(() => page.Find("tag-screw"));
        Tap(page, "pot-black", "8–0");
        Tap(page, "pot-red", "9–0");
        Tap(page, "undo-shot", "8–0");
        page.Says("frame-on", "Tilda at the table, a red on");
        page.Click(() => page.Find("missed"));
        page.Until(() => page.Text("frame-on").Contains("Orrin"));
        page.Click(() => page.Find("foul"));
        Tap(page, "penalty-5", "13–0");
        page.Click(() => page.Find("breaks"));
        page.Says("frame-breaks", "8");
        page.Click(() => page.Find("figures"));
        page.Says("frame-figures", "screw 1 of 1");
        // Nothing sticks out at the side.
        Assert.InRange(
            Convert.ToInt32(page.Driver.ExecuteScript("const d = document.documentElement; return d.scrollWidth - d.clientWidth")),
            -20,
            1
        );

        // After a reload it goes on where it was.
        page.Reload();
        page.Find("frames").Click();
        page.Until(() => page.Text("score-0") == "13");
        page.Click(() => page.Find("all-frames"));
        page.Until(() => page.Text("frame-list").Contains($"Frame at {width}") && page.Text("frame-list").Contains("Copperbeck ladder"));
    }

    [Fact]
    public void A_planned_shot_that_is_played_is_written_into_the_frame_that_is_open()
    {
        var page = desk.Open();
        Begin(page, "With a plan");
        page.OpenPosition("Last red to the colours");
        page.Find("plan-break").Click();
        page.Click(() => page.Find("potted"));
        page.Until(() => page.HasNotice("1 point, break 1"));
        page.Find("frames").Click();
        page.Until(() => page.Text("score-0") == "1");
        page.Says("frame-shots", "Tilda: red");
    }
}
