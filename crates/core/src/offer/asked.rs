//! What a screen asks about the offer, and the type of each answer. It is answered by a core of its own, which has the solver in it.

use super::agreed::{Against, Signed, against, agree};
use super::bill::{Bill, bill};
use super::fewest::{Fewest, FewestAmong, FewestBy, Waiting, fewest};
use super::options::own_option;
use super::paper::{Paper, PricedOption, paper, priced, priced_options};
use super::photo_view::{PhotoLaid, lay};
use super::prices_csv;
use crate::exchange::plan::Plan;
use crate::exchange::svg;
use crate::file::{Fault, HeadRef, PatchOp, Photo, Prices};
use crate::judge::Session;
use crate::words::units::Units;
use serde::{Deserialize, Serialize, Serializer};
use utoipa::ToSchema;

macro_rules! offers {
    ($(
        $(#[$about:meta])*
        $name:ident { $( $(#[$of:meta])* $field:ident: $type:ty, )* } -> $answer:ty = |$session:ident, $waiting:ident| $given:expr;
    )*) => {
        /// What can be asked about the offer.
        #[derive(Clone, Debug, Deserialize, Serialize, ToSchema)]
        #[serde(tag = "ask", rename_all = "snake_case", deny_unknown_fields)]
        pub enum OfferAsk {
            $( $(#[$about])* $name { $( $(#[$of])* $field: $type, )* }, )*
        }

        /// What is answered, written as the answer alone. The schema names it by its question.
        #[derive(Clone, Debug, ToSchema)]
        #[schema(rename_all = "snake_case")]
        #[allow(clippy::large_enum_variant)]
        pub enum OfferAnswer {
            $( $(#[$about])* $name($answer), )*
        }

        impl Serialize for OfferAnswer {
            fn serialize<S: Serializer>(&self, to: S) -> Result<S::Ok, S::Error> {
                match self {
                    $( OfferAnswer::$name(answer) => answer.serialize(to), )*
                }
            }
        }

        /// Answers a question about the offer.
        ///
        /// # Errors
        /// What stands against it, with its place.
        pub fn answer(session: &Session, ask: OfferAsk, waiting: &Waiting) -> Result<OfferAnswer, Vec<Fault>> {
            match ask {
                $( OfferAsk::$name { $( $field, )* } => {
                    #[allow(unused_variables)]
                    let ($session, $waiting) = (session, waiting);
                    Ok(OfferAnswer::$name($given))
                } )*
            }
        }
    };
}

offers! {
    /// The fewest cameras, for each of some wishes.
    Fewest {
        /// What is chosen from.
        among: FewestAmong,
        /// What counts, answer by answer.
        wishes: Vec<FewestBy>,
        /// Units of the words.
        units: Units,
    } -> Vec<Fewest> = |session, waiting| fewest(session, among, &wishes, units, waiting)?;

    /// Options of the design with their prices.
    Options {} -> Vec<PricedOption> = |session, waiting| priced_options(session, waiting.patience)?;

    /// Somebody's own choice of its cameras.
    OwnOption {
        /// The ids of the cameras.
        cameras: Vec<String>,
    } -> PricedOption = |session, waiting| priced(session.site().file(), own_option(session, &cameras)?)?;

    /// What the design costs.
    Bill {} -> Bill = |session, waiting| bill(session.site().file())?;

    /// All that the papers say.
    Paper {
        /// Units of the words.
        units: Units,
    } -> Paper = |session, waiting| paper(session, units, waiting.patience)?;

    /// A head's view laid into a photo from its spot.
    PhotoView {
        /// The head.
        head: HeadRef,
        /// The photo with its points.
        photo: Photo,
    } -> PhotoLaid = |session, waiting| {
        let site = session.site();
        lay(site, site.view(&head)?, &photo)?
    };

    /// The plan as a sheet to print, SVG.
    PlanSheet {} -> String = |session, waiting| svg::write(&Plan::judged(session));

    /// The change that keeps an agreement.
    Agree {
        /// Who agrees.
        signed: Signed,
    } -> Vec<PatchOp> = |session, waiting| agree(session, signed)?;

    /// The newest agreement against what stands now.
    Agreed {
        /// Units of the words.
        units: Units,
    } -> Option<Against> = |session, waiting| {
        let newest = session.site().file().agreements.last();
        newest.map(|agreement| against(session, agreement, units)).transpose()?
    };

    /// The prices as CSV, with what still has none.
    WritePrices {} -> String = |session, waiting| prices_csv::write(session.site().file())?;

    /// The prices with those of a CSV file in them.
    ReadPrices {
        /// The file.
        csv: String,
    } -> Prices = |session, waiting| {
        prices_csv::read_into(&session.site().file().prices.clone().unwrap_or_default(), &csv)?
    };
}
