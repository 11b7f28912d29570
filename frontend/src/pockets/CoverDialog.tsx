/** The cover of one's own portfolio: a title, a colour, a picture. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { ImagePlus } from "lucide-react";
import { useRef, useState } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { upload } from "../api/upload";
import { Modal } from "../ui/Modal";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { TINTS } from "../ui/people/PegPicture";
import { TEXTS } from "./texts";

interface Props {
  portfolio: Schema["PortfolioShape"];
  onClose: () => void;
}

export function CoverDialog({ portfolio, onClose }: Props) {
  const queries = useQueryClient();
  const { cover } = portfolio;
  const [title, setTitle] = useState(cover.title);
  const [tint, setTint] = useState(cover.tint);
  const [picture, setPicture] = useState(cover.picture);
  const chooser = useRef<HTMLInputElement>(null);
  const path = { params: { path: { portfolio_id: portfolio.id } } };
  const add = useMutation({
    mutationFn: (file: File) => upload<Schema["ArtefactShape"]>(`/api/portfolios/${portfolio.id}/cover/picture`, file),
    onSuccess: setPicture,
  });
  const save = useMutation({
    mutationFn: () => data(client.PUT("/api/portfolios/{portfolio_id}/cover", { ...path, body: { title, tint, picture: picture?.id ?? null } })),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ["group", portfolio.group.id] });
      onClose();
    },
  });
  const error = save.error ?? add.error;
  return (
    <Modal title={TEXTS.theCoverOfYourPortfolio} onClose={onClose} narrow>
          <label className="font-bold">
            {TEXTS.title}
            <input data-autofocus value={title} maxLength={120} placeholder={TEXTS.givenNameSPortfolio({ given_name: portfolio.student.given_name })} onChange={(event) => setTitle(event.target.value)} className="mt-1 block min-h-11 w-full rounded-md border border-control px-3 font-normal" />
          </label>
          <fieldset>
            <legend className="font-bold">{TEXTS.colour}</legend>
            <div className="mt-1 flex flex-wrap gap-2">
              {TINTS.map((classes, at) => (
                <label key={classes} className={`flex size-11 cursor-pointer items-center justify-center rounded-md border-2 has-focus-visible:outline-3 has-focus-visible:outline-in ${classes} ${tint === at ? "border-ink" : "border-transparent"}`}>
                  <input type="radio" name="tint" className="sr-only" checked={tint === at} aria-label={TEXTS.colourAt({ at: at + 1 })} onChange={() => setTint(at)} />
                  {tint === at && <span aria-hidden className="size-3 rounded-full bg-ink" />}
                </label>
              ))}
            </div>
          </fieldset>
          <div className="flex flex-wrap items-center gap-3">
            {picture && <img src={`/api/artefacts/${picture.id}/thumbnails/small`} alt={picture.title} className="h-20 rounded-md object-cover" />}
            <input
              ref={chooser}
              type="file"
              accept="image/*"
              hidden
              aria-label={TEXTS.pictureOfTheCover}
              onChange={(event) => {
                const file = event.target.files?.[0];
                if (file) add.mutate(file);
                event.target.value = "";
              }}
            />
            <Button big icon={<ImagePlus aria-hidden size={18} />} disabled={add.isPending} onClick={() => chooser.current?.click()}>
              {add.isPending ? TEXTS.onItsWay : picture ? TEXTS.anotherPicture : TEXTS.addAPicture}
            </Button>
            {picture && (
              <Button big look="quiet" onClick={() => setPicture(null)}>
                {TEXTS.noPicture}
              </Button>
            )}
          </div>
          {error instanceof Problem && <Notice title={error.title} fix={error.fix} />}
          <div className="flex flex-wrap gap-2">
            <Button look="main" big disabled={save.isPending} onClick={() => save.mutate()}>
              {TEXTS.keepTheCover}
            </Button>
            <Button big onClick={onClose}>
              {TEXTS.cancel}
            </Button>
          </div>
    </Modal>
  );
}
