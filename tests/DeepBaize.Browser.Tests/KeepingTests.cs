using DeepBaize.Core.Table;
using OpenQA.Selenium;

namespace DeepBaize.Browser.Tests;

[Collection("second desk")]
[BrowsersGoBack]
public class KeepingTests(SecondDesk desk)
{
    private static Page Saved(Desk desk, string from, string name)
    {
        var page = desk.Open();
        page.OpenPosition(from);
        page.More("Save as");
        page.TypeName(name);
        page.Until(() =>
            page.Text("position-name") == name && page.Driver.FindElements(By.CssSelector("[data-testid=unsaved]")).Count == 0
        );
        return page;
    }

    private static void Nudge(Page page)
    {
        page.Find("plan").SendKeys(Keys.ArrowRight);
        page.Find("unsaved");
    }

    [Fact]
    public async Task While_the_database_is_away_nothing_is_lost_and_saving_works_once_it_is_back()
    {
        var page = Saved(desk, "Re-spotted black", "Kept through an outage");
        Nudge(page);
        var white = page.Ball("white");
        await desk.SetDatabaseAway(true);
        try
        {
            page.Find("save").Click();
            page.Until(() => page.HasNotice("database does not answer"));
            Assert.Equal(white, page.Ball("white"));
            Assert.True(page.Find("unsaved").Displayed);
        }
        finally
        {
            await desk.SetDatabaseAway(false);
        }
        page.Find("save").Click();
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=unsaved]")).Count == 0);
    }

    [Fact]
    public void The_second_of_two_pages_to_save_is_told_and_can_keep_both()
    {
        var first = Saved(desk, "Re-spotted black", "Two hands at once");
        var second = desk.Open();
        second.OpenPosition("Two hands at once");
        Nudge(first);
        first.Find("save").Click();
        first.Until(() => first.Driver.FindElements(By.CssSelector("[data-testid=unsaved]")).Count == 0);
        Nudge(second);
        second.Find("save").Click();
        second.Until(() => second.Driver.FindElements(By.CssSelector(".el-dialog .row button")).Count == 3);
        second.Click(() => second.Driver.FindElement(By.CssSelector(".el-dialog .row button:nth-child(1)")));
        second.TypeName("Two hands, the other one");
        second.Until(() => second.Text("position-name") == "Two hands, the other one");
        first.OpenPosition("Two hands, the other one");
        first.OpenPosition("Two hands at once");
    }

    [Fact]
    public void A_deleted_position_comes_back_with_undo()
    {
        var page = Saved(desk, "Re-spotted black", "Soon gone");
        page.More("Delete");
        page.Until(() => page.HasNotice("in the bin"));
        page.Click(() => page.Driver.FindElements(By.CssSelector("[data-testid=notice] button")).First(b => b.Text == "Undo"));
        page.Until(() => page.HasNotice("is back"));
        page.OpenPosition("Soon gone");
    }

    [Fact]
    public void A_broken_file_says_what_is_wrong_and_a_good_one_opens()
    {
        var page = desk.Open();
        page.OpenPosition("Re-spotted black");
        page.Find("positions").Click();
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=import-file]")).Count == 1);
        var folder = Directory.CreateTempSubdirectory();
        var file = Path.Combine(folder.FullName, "one.json");
        File.WriteAllText(
            file,
            """{"format":"deep-baize-position","version":1,"name":"From a file","balls":[{"id":"white","x":1,"y":99}]}"""
        );
        page.Driver.FindElement(By.CssSelector("[data-testid=import-file]")).SendKeys(file);
        page.Until(() => page.HasNotice("balls[0].y"));
        Assert.Equal("/library", page.Path);

        File.WriteAllText(
            file,
            """{"format":"deep-baize-position","version":1,"name":"From a file","balls":[{"id":"white","x":1,"y":1}]}"""
        );
        page.Driver.FindElement(By.CssSelector("[data-testid=import-file]")).SendKeys(file);
        page.Until(() => page.Text("position-name") == "From a file");
        folder.Delete(true);
    }

    [Fact]
    public async Task A_body_over_the_limit_is_refused()
    {
        using var client = new HttpClient();
        using var response = await client.PostAsync(
            $"{desk.Address}/api/simulate",
            new StringContent("{\"balls\":[" + new string(' ', 300_000) + "]}", System.Text.Encoding.UTF8, "application/json")
        );
        Assert.Equal(413, (int)response.StatusCode);
        Assert.Contains("256 kB", await response.Content.ReadAsStringAsync());
    }
}
