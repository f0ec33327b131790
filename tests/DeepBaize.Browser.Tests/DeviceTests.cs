using OpenQA.Selenium;

namespace DeepBaize.Browser.Tests;

/// <summary>Devices with their stand-ins: a camera that is followed and put right, the timing of the cue by touch.</summary>
[Collection("second desk")]
[BrowsersGoBack]
public class DeviceTests(SecondDesk desk)
{
    private static int Count(Page page, string testId) => page.Driver.FindElements(By.CssSelector($"[data-testid={testId}]")).Count;

    [Fact]
    public void A_made_up_camera_writes_the_frame_that_is_open_and_a_stroke_is_dropped()
    {
        var page = desk.Open();
        page.Visit("/frames");
        page.Click(() => page.Find("frame-title"));
        page.Find("frame-title").SendKeys("Seen from above");
        page.Click(() => page.Find("begin-frame"));
        page.Find("pot-red");
        page.Visit("/settings");
        page.Click(() => page.Find("to-devices"));
        page.Click(() => page.Find("goal-frame"));
        page.Click(() => page.Find("start-camera"));
        page.Until(() =>
            page.Text("camera-state").Contains("lies still", StringComparison.Ordinal)
            || page.Text("camera-state").Contains("under way", StringComparison.Ordinal)
        );
        page.Click(() => page.Find("stop-camera"));
        page.Until(() => page.Text("camera-state").Contains("off", StringComparison.Ordinal));
        // The same twenty times as fast: nobody waits for balls to roll.
        page.Driver.ExecuteAsyncScript(
            """
            const done = arguments[0];
            const goal = { kind: 'frame', id: localStorage.getItem('deep-baize-frame') };
            fetch('/api/stand-in/camera', {
              method: 'POST',
              headers: { 'Content-Type': 'application/json' },
              body: JSON.stringify({ plays: 'frame', haste: 20, goal }),
            }).then((answer) => done(answer.status));
            """
        );
        page.Driver.Navigate().Refresh();
        page.Until(() => Count(page, "camera-stroke") >= 2);
        page.Click(() => page.Find("stop-camera"));
        page.Until(() => page.Text("camera-state").Contains("off", StringComparison.Ordinal));
        Assert.Contains("of the frame", page.Text("camera-stroke"));
        var written = Count(page, "camera-stroke");
        page.Click(() => page.Find("was-wrong"));
        page.Click(() => page.Find("mend-drop"));
        page.Until(() => page.HasNotice("taken back"));
        page.Says("camera-stroke", "dropped");
        // One that came in while the camera was being stopped is there too.
        var list = page.Driver.ExecuteAsyncScript(
            """
            const done = arguments[0];
            fetch(`/api/frames/${localStorage.getItem('deep-baize-frame')}`)
              .then((answer) => answer.json())
              .then((frame) => done(frame.story.shots.length));
            """
        );
        Assert.InRange(Convert.ToInt32(list), written - 1, written + 1);
    }

    [Fact]
    public void A_stroke_of_the_cue_is_told_and_laid_over_another_by_touch()
    {
        var page = desk.Open(390, 844, touch: true);
        page.Visit("/devices");
        page.Tap(() => page.Find("cue-slowing"));
        page.Says("timing-verdict", "slowing through the ball");
        page.Until(() => page.Find("cue-well").Enabled);
        page.Tap(() => page.Find("cue-well"));
        page.Says("timing-verdict", "speeding up through");
        page.Says("timing-comparison", "peak before contact");
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=timing-chart] polyline")).Count >= 2);
        page.Says("cue-weeks", "slowing");
        // A file that is none is told with its line.
        var file = Path.Combine(Path.GetTempPath(), $"cue-{Guid.NewGuid():N}.csv");
        File.WriteAllText(file, "time,travel\n0,0\n0.002,far\n");
        page.Driver.FindElement(By.CssSelector("[data-testid=cue-file]")).SendKeys(file);
        page.Until(() => page.HasNotice("Could not read the file"));
        File.Delete(file);
        Assert.InRange(
            Convert.ToInt32(page.Driver.ExecuteScript("const d = document.documentElement; return d.scrollWidth - d.clientWidth")),
            -20,
            1
        );
    }
}
