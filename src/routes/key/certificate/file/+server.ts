import { authorityCertificate } from '$lib/server/people/share-state';
import { error } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** The certificate of the local authority. It is no secret. */
export const GET: RequestHandler = () => {
	const certificate = authorityCertificate();
	if (!certificate)
		error(404, {
			message: 'This yard is not shared.',
			advice: 'It has a certificate once ./bruntle share was started.'
		});
	return new Response(new Uint8Array(certificate), {
		headers: {
			'content-type': 'application/x-x509-ca-cert',
			'content-disposition': 'attachment; filename="bruntle-yard.crt"'
		}
	});
};
