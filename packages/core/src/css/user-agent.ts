/**
 * What a browser shows without any stylesheet of the page (HTML, section 15 "Rendering"), for what content holds.
 * Values are those that the standard gives; where it leaves room, those of common browsers.
 */
export const USER_AGENT_CSS = `
html, body, address, article, aside, blockquote, center, dd, details, dialog, div, dl, dt, fieldset, figcaption, figure, footer, form,
h1, h2, h3, h4, h5, h6, header, hgroup, hr, legend, listing, main, menu, nav, ol, optgroup, option, p, plaintext, pre, search, section, summary, ul, xmp { display: block }
area, base, basefont, datalist, head, link, meta, noembed, noframes, param, rp, script, style, template, title { display: none }
body { margin: 8px }
a:any-link { color: #0000ee; text-decoration-line: underline }
p, dl, ul, ol, menu, pre, blockquote, figure, listing, xmp, plaintext { margin-top: 1em; margin-bottom: 1em }
blockquote, figure { margin-left: 40px; margin-right: 40px }
dd { margin-left: 40px }
ul, menu, ol { padding-left: 40px; list-style-type: disc }
ol { list-style-type: decimal }
:is(ol, ul, menu) :is(ul, menu) { list-style-type: circle }
:is(ol, ul, menu) :is(ol, ul, menu) :is(ul, menu) { list-style-type: square }
:is(ol, ul, menu, dl) :is(ol, ul, menu, dl) { margin-top: 0; margin-bottom: 0 }
li { display: list-item; text-align: match-parent }
h1 { font-size: 2em; margin-top: 0.67em; margin-bottom: 0.67em; font-weight: bold }
h2 { font-size: 1.5em; margin-top: 0.83em; margin-bottom: 0.83em; font-weight: bold }
h3 { font-size: 1.17em; margin-top: 1em; margin-bottom: 1em; font-weight: bold }
h4 { margin-top: 1.33em; margin-bottom: 1.33em; font-weight: bold }
h5 { font-size: 0.83em; margin-top: 1.67em; margin-bottom: 1.67em; font-weight: bold }
h6 { font-size: 0.67em; margin-top: 2.33em; margin-bottom: 2.33em; font-weight: bold }
address, cite, dfn, em, i, var { font-style: italic }
b, strong { font-weight: bolder }
small { font-size: smaller }
big { font-size: larger }
sub { vertical-align: sub; font-size: smaller }
sup { vertical-align: super; font-size: smaller }
code, kbd, samp, tt, pre, listing, xmp, plaintext { font-family: monospace; font-size: 0.8125em }
pre, listing, xmp, plaintext { white-space: pre }
mark { background-color: #ffff00; color: #000000 }
s, strike, del { text-decoration-line: line-through }
u, ins { text-decoration-line: underline }
abbr[title] { text-decoration-line: underline; text-decoration-style: dotted }
center { text-align: center }
hr { color: gray; border: 1px inset; margin: 0.5em auto; overflow: hidden }
table { display: table; box-sizing: border-box; border-spacing: 2px; border-collapse: separate; text-indent: initial }
caption { display: table-caption; text-align: center }
colgroup { display: table-column-group }
col { display: table-column }
thead { display: table-header-group; vertical-align: middle }
tbody { display: table-row-group; vertical-align: middle }
tfoot { display: table-footer-group; vertical-align: middle }
tr { display: table-row; vertical-align: inherit }
td, th { display: table-cell; vertical-align: inherit; padding: 1px }
th { font-weight: bold; text-align: -internal-center() }
img, svg, video, canvas, iframe, object, embed, audio { overflow: clip }
iframe { border: 2px inset }
ruby { display: ruby }
rt { display: ruby-text; font-size: 50% }
fieldset { margin-left: 2px; margin-right: 2px; border: 2px groove; padding: 0.35em 0.75em 0.625em }
summary { display: list-item }
q::before { content: open-quote }
q::after { content: close-quote }
[hidden] { display: none }
`;
