using System.Text.Json;
using OpenQA.Selenium;

namespace DeepBaize.Browser.Tests;

[Collection("desk")]
public class LookTests(Desk desk)
{
    [Theory]
    [InlineData(1280, 800, 0.60)]
    [InlineData(1024, 768, 0.60)]
    public void Table_and_desk_are_seen_whole_without_scrolling(int width, int height, double share)
    {
        var page = desk.Open(width, height);
        // With the most on the desk: a pot, and colours that could be put back.
        page.OpenPosition("Stun across for the pink");
        page.Find("arrival");
        var overflow = page.Driver.ExecuteScript(
            "const [d, page] = [document.querySelector('.desk'), document.documentElement]; "
                + "return [page.scrollWidth - innerWidth, page.scrollHeight - innerHeight, d.scrollHeight - d.clientHeight]"
        );
        Assert.All((IReadOnlyCollection<object>)overflow!, o => Assert.InRange(Convert.ToInt32(o), -2000, 1));
        Assert.True(page.Find("plan").Size.Width >= share * width, $"the plan is {page.Find("plan").Size.Width} px wide");
    }

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void Nothing_on_the_page_fails_WCAG_AA(bool light)
    {
        // Checked by axe-core, the rules of WCAG 2.1 A and AA.
        var page = desk.Open();
        page.OpenPosition("High on the black, full pack");
        if (light)
            page.Driver.FindElements(By.CssSelector("header button")).First(b => b.Text == "Light").Click();
        page.Find("outcome");
        page.Find(light ? "keep" : "put-it-there").Click();
        Thread.Sleep(600); // the drawer fades out
        page.Driver.ExecuteScript(File.ReadAllText(Path.Combine(Desk.Root, "web", "node_modules", "axe-core", "axe.min.js")));
        var result = (string)
            page.Driver.ExecuteAsyncScript(
                """
                const done = arguments[arguments.length - 1];
                axe.run(document, { runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa'] })
                  .then(r => done(JSON.stringify(r.violations.map(v => `${v.id}: ${v.nodes.map(n => n.target.join(' ')).join(', ')}`))));
                """
            )!;
        Assert.Empty(JsonSerializer.Deserialize<string[]>(result)!);
    }
}
